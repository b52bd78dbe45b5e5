"""Photos whose subject is known exactly, and how a cut-out is judged by them.

``scenes/`` holds path-traced photos with the coverage (alpha) of their subject, rendered from the
same camera; made for this project, CC0. Half of them are held out: nothing is tuned on those, and
they are measured once, when the method is settled.
"""
