"""The job itself: documents, framing, photos, rendering, checks and export.

Nothing here knows the web, the database or the interface, and nothing keeps state
between calls: the same arguments give the same pixels.

The image contract
------------------
Every array that passes between modules of ``core`` follows it; docstrings say "a picture".

* ``numpy.ndarray`` of shape ``(height, width, channels)``, rows from the top.
* 3 channels are red, green, blue; 4 add alpha. Grey photos are widened to 3.
* ``uint8`` (0..255) or, for photos finer than that, ``uint16`` (0..65535).
* Values are sRGB-*encoded* (IEC 61966-2-1) and alpha is *straight*: colour is never
  multiplied by alpha at rest. Filters premultiply inside, in linear light.
* Arrays are C-contiguous and are never changed by the function that receives them.
"""
