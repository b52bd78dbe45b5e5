"""Export: pictures to files."""

from lucky_margin.core.export.archive import ALT_TEXT_TABLE, alt_text_table, zip_into, zipped
from lucky_margin.core.export.cut_line import cut_line
from lucky_margin.core.export.encode import MEDIA_TYPES, SUFFIXES, encode
from lucky_margin.core.export.export import ExportedFile, export
from lucky_margin.core.export.file_names import file_names
from lucky_margin.core.export.kept_subject import kept_subject
from lucky_margin.core.export.mask import mask_file
from lucky_margin.core.export.names import file_stem, safe_stem
from lucky_margin.core.export.open_raster import LAYERS_TYPE, layers_name, open_raster
from lucky_margin.core.export.packages import (
    FINISH,
    MAX_PACKAGE_BYTES,
    STYLE,
    PackageFiles,
    package,
    read_package,
)
from lucky_margin.core.export.pdf import pages_together
from lucky_margin.core.export.reveal import export_reveal
from lucky_margin.core.export.weight import (
    BYTES_PER_KB,
    QUALITY_FLOOR,
    FewerColours,
    FewerPixels,
    OtherFormat,
    Remedy,
)

__all__ = [
    "ALT_TEXT_TABLE",
    "BYTES_PER_KB",
    "FINISH",
    "LAYERS_TYPE",
    "MAX_PACKAGE_BYTES",
    "MEDIA_TYPES",
    "QUALITY_FLOOR",
    "STYLE",
    "SUFFIXES",
    "ExportedFile",
    "FewerColours",
    "FewerPixels",
    "OtherFormat",
    "PackageFiles",
    "Remedy",
    "alt_text_table",
    "cut_line",
    "encode",
    "export",
    "export_reveal",
    "file_names",
    "file_stem",
    "kept_subject",
    "layers_name",
    "mask_file",
    "open_raster",
    "package",
    "pages_together",
    "read_package",
    "safe_stem",
    "zip_into",
    "zipped",
]
