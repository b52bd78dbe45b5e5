"""Documents in work: each is sent once, and then named by its SHA-256."""

from fastapi import APIRouter, Request
from starlette.concurrency import run_in_threadpool

from lucky_margin.core.document import Sha256, Value
from lucky_margin.core.errors import TooLarge
from lucky_margin.web.app_state import AppStateDep
from lucky_margin.web.bodies import DOCUMENT, body_of
from lucky_margin.web.drafts import MAX_DOCUMENT_BYTES

router = APIRouter(prefix="/drafts", tags=["bench"])

TOO_LARGE = f"A document has at most {MAX_DOCUMENT_BYTES // 1_000_000} MB; take some pieces away."


class DraftKept(Value):
    """How the draft is named from now on."""

    draft: Sha256


@router.post("", status_code=201, openapi_extra=DOCUMENT)
async def send_draft(request: Request, state: AppStateDep) -> DraftKept:
    """Send a document in any state of work. The service may forget it again: a request that names
    it is then refused as ``UnknownDraft``, and it has to be sent once more."""
    data = await body_of(request, MAX_DOCUMENT_BYTES, TooLarge(TOO_LARGE))
    draft = await run_in_threadpool(state.drafts.read, data)
    return DraftKept(draft=draft.sha256)
