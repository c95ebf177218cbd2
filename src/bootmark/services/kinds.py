"""Every kind of command with what carries it out: the whole list, so that a process that imports it knows them all."""

from typing import Any

from bootmark.services import features, parts, pictures, place_checks, places, plantings, season_tasks
from bootmark.services.base.handling import Handler
from bootmark.services.owning import invitations, members, settings
from bootmark.services.scouting import conditions, enquiries, holds, looks
from bootmark.services.seasons import biofixes, crop_stages, offsets, sightings, traps
from bootmark.services.treatment import applications, calls, opinions, thresholds
from bootmark.services.weather import judging
from bootmark.store.base import Head

HANDLERS: tuple[Handler[Any, Any], ...] = (
    places.store_station,
    places.store_block,
    plantings.store_planting,
    parts.store_piece,
    parts.store_joined,
    features.store_feature,
    place_checks.store_check,
    season_tasks.store_task,
    pictures.store_picture,
    judging.store_judgement,
    biofixes.store_biofix,
    traps.store_trap,
    traps.store_check,
    sightings.store_sighting,
    crop_stages.store_crop_stage,
    offsets.store_offset,
    looks.store_stop,
    looks.store_look,
    looks.store_sample,
    conditions.store_condition,
    enquiries.store_enquiry,
    calls.store_decision,
    opinions.store_opinion,
    applications.store_begun,
    applications.store_application,
    thresholds.store_threshold,
    holds.store_answer,
    settings.store_farm,
    members.store_member,
    invitations.store_invitation,
)
SAVES: dict[type[Head], str] = {handler.head: handler.command.spec.kind for handler in reversed(HANDLERS)}
"""The kind of command that a record's versions are kept as, whichever made them."""
KINDS: dict[str, Handler[Any, Any]] = {handler.command.spec.kind: handler for handler in HANDLERS}
