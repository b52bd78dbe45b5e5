"""Carrying out edits. Pure: a finish goes in, the changed one and perhaps a remark come out."""

from collections.abc import Callable
from typing import Any

from pydantic import ValidationError

from lucky_margin.core.document import Finish, Value, describe_validation_error
from lucky_margin.core.edits import edit as edits
from lucky_margin.core.edits import framing, moving, pieces, pointing, shapes, sizes, steps, tone
from lucky_margin.core.edits.context import Context, Edited
from lucky_margin.core.errors import BadDocument
from lucky_margin.core.framing import frame_of
from lucky_margin.core.photos import PhotoFacts
from lucky_margin.core.text import FontFinder, no_fonts


def apply_edit(
    finish: Finish,
    size_id: str,
    edit: edits.Edit,
    facts: PhotoFacts,
    font: FontFinder = no_fonts,
) -> Edited:
    """``finish`` after ``edit``, which concerns the size ``size_id`` where it concerns one;
    ``font`` finds own fonts, which say how large words are.

    Raises:
        BadDocument: the edit asks for a value out of range.
        BadInput: the edit makes no sense here.
        NotFound: there is no such size.
        TooLarge: a size would come to too many pixels.
    """
    size = finish.size(size_id)
    try:
        edited = _APPLY[type(edit)](Context(finish, size, facts, font), edit)
        checked = Finish.model_validate(edited.finish.model_dump())
    except ValidationError as error:
        raise BadDocument(describe_validation_error(error)) from error
    for size in checked.sizes:
        frame_of(checked, size, facts.width, facts.height)
    return Edited(checked, edited.size_id, edited.said, edited.guides)


def _reset_step(here: Context, edit: edits.ResetStep) -> Edited:
    return framing.reset_crop(here) if edit.step == "crop" else steps.reset_step(here, edit.step)


_APPLY: dict[type[Value], Callable[[Context, Any], Edited]] = {
    edits.ChooseRatio: sizes.choose_ratio,
    edits.UseSize: sizes.use_size,
    edits.AddSize: sizes.add_size,
    edits.DuplicateSize: sizes.duplicate_size,
    edits.RemoveSize: sizes.remove_size,
    edits.RenameSize: sizes.rename_size,
    edits.PlaceSize: sizes.place_size,
    edits.SetSeenWidth: sizes.set_seen_width,
    edits.SetPixels: sizes.set_pixels,
    edits.DragWindow: framing.drag_window,
    edits.DrawWindow: framing.draw_window,
    edits.TypeWindow: framing.type_window,
    edits.SetWindow: framing.set_window,
    edits.ScaleWindow: framing.scale_window,
    edits.SetContain: framing.set_contain,
    edits.SetTurn: framing.set_turn,
    edits.TurnQuarter: framing.turn_quarter,
    edits.Mirror: framing.mirror,
    edits.LevelLine: framing.level_line,
    edits.SetFocus: framing.set_focus,
    edits.DrawFocus: framing.draw_focus,
    edits.SetShape: shapes.set_shape,
    edits.DragShape: shapes.drag_shape,
    edits.DragMargin: shapes.drag_margin,
    edits.SetMargin: shapes.set_margin,
    edits.SetGround: steps.set_ground,
    edits.SetTone: steps.set_tone,
    edits.AddWash: tone.add_wash,
    edits.DragWash: tone.drag_wash,
    edits.AddArea: tone.add_area,
    edits.AddMask: tone.add_mask,
    edits.PickForMask: tone.pick_for_mask,
    edits.DragMask: tone.drag_mask,
    edits.SetBorder: steps.set_border,
    edits.AddText: pieces.add_text,
    edits.AddBadge: pieces.add_badge,
    edits.AddPicture: pieces.add_picture,
    edits.AddMark: pieces.add_mark,
    edits.PastePieces: pieces.paste_pieces,
    edits.DuplicatePieces: pieces.duplicate_pieces,
    edits.RemovePieces: pieces.remove_pieces,
    edits.GroupPieces: pieces.group_pieces,
    edits.OrderPiece: pieces.order_piece,
    edits.SetPiece: pieces.set_piece,
    edits.FollowPiece: pieces.follow_piece,
    edits.DragPieces: moving.drag_pieces,
    edits.ScalePiece: moving.scale_piece,
    edits.TurnPiece: moving.turn_piece,
    edits.PointPiece: pointing.point_piece,
    edits.ReleaseTip: pointing.release_tip,
    edits.AlignPieces: moving.align_pieces,
    edits.AnchorPiece: moving.anchor_piece,
    edits.PlacePiece: moving.place_piece,
    edits.SetWatermark: steps.set_watermark,
    edits.DragWatermark: moving.drag_watermark,
    edits.SetExport: steps.set_export,
    edits.Follow: steps.follow,
    edits.SetFileDetails: steps.set_file_details,
    edits.Rename: steps.rename,
    edits.ResetStep: _reset_step,
}
