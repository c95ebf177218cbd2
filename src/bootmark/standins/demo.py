"""Loads the demo farm: accounts and weather straight into the store, all that people did through commands."""

import datetime as dt
import os
import sys
from typing import Any

from sqlalchemy import create_engine, text
from sqlalchemy.orm import Session

from bootmark.core.field.schools import School
from bootmark.services.base.people import NOBODY, folded, hash_password
from bootmark.services.owning.settings import policy_as_kept
from bootmark.services.weather import readings
from bootmark.services.weather.readings import DayReading, HourReading
from bootmark.standins import sky
from bootmark.standins.estate import (
    BLOCKS,
    FARM,
    LATITUDE,
    LONGITUDE,
    NAME,
    NOW,
    ORIGIN,
    PASSWORD,
    PEOPLE,
    SITES,
    STANDS,
    THINGS,
    TIME_ZONE,
    made,
)
from bootmark.standins.hand import Hand, day
from bootmark.store import setup
from bootmark.store.models import Account, Farm, Membership, Planting, Station, TreatmentRow
from bootmark.store.session import farm_session

OFFSET = 60
FAULTY, GAP, SPIKE = "Ridge mast", (dt.date(2026, 4, 3), dt.date(2026, 4, 8)), dt.date(2026, 5, 6)
"""The station that failed for six days and told one day wrong."""
NEARBY = ("Birch bed", "Hop yard")
"""Blocks that take their weather from both masts, by distance and height."""
PAST_MOTHS = {2024: {"egg": 5, "larva": 31}, 2025: {"egg": 12, "larva": 13}}
"""Stages that were counted in the middle of June of past years."""
FIRST_DAY = dt.date(2024, 1, 1)
FIRST_HOUR = dt.datetime(2026, 6, 1, tzinfo=dt.UTC)
STAGES = ("people", "stations and weather", "blocks", "two past seasons", "this season")


def progress(place: int) -> None:
    print(f"  Loading the demo farm, {place + 1} of {len(STAGES)}: {STAGES[place]}", file=sys.stderr, flush=True)


def load_people(owner_url: str, hashed: str) -> None:
    engine = create_engine(owner_url)
    with Session(engine, info={"farm": FARM}) as session, session.begin():
        session.add(
            Farm(
                id=FARM,
                name=NAME,
                latitude=LATITUDE,
                longitude=LONGITUDE,
                origin_latitude=LATITUDE,
                origin_longitude=LONGITUDE,
                time_zone=TIME_ZONE,
                clock_at=NOW,
                policy=policy_as_kept(School.CONVENTIONAL),
                region="AT",
                school=School.CONVENTIONAL,
            )
        )
        for name, email, role, qualified in PEOPLE:
            session.add(Account(id=made(email), email=folded(email), name=name, password_hash=hashed))
            session.flush()
            session.add(Membership(farm_id=FARM, account_id=made(email), role=role, qualified=qualified))
    engine.dispose()


def _day(name: str, date: dt.date, zone: dt.tzinfo, site: dict[str, float]) -> DayReading:
    """A day as the station told it: one of them on the ridge was struck by the sun."""
    start = dt.datetime.combine(date, dt.time(0), zone)
    hours = sky.hours(start, start + dt.timedelta(days=1), **site)
    temps = [round(hour.temp, 1) for hour in hours]
    struck = 26.0 if name == FAULTY and date == SPIKE else 0.0
    rain = round(sum(hour.rain for hour in hours), 1)
    return DayReading(date, start + dt.timedelta(days=1), min(temps), max(temps) + struck, rain)


def _gone(name: str, date: dt.date) -> bool:
    return name == FAULTY and GAP[0] <= date <= GAP[1]


def _hour(hour: sky.Hour) -> HourReading:
    return HourReading(hour.at, hour.at + dt.timedelta(hours=1), hour.temp, hour.rh, hour.wind, hour.rain)


def load_weather(session: Session, name: str, site: dict[str, float]) -> None:
    station = session.get_one(Station, (FARM, made(name)))
    zone = dt.timezone(dt.timedelta(minutes=OFFSET))
    today = NOW.astimezone(zone).date()
    days = [_day(name, FIRST_DAY + dt.timedelta(days=n), zone, site) for n in range((today - FIRST_DAY).days)]
    readings.take_days(session, station, [day for day in days if not _gone(name, day.local_date)], readings.PULLED)
    hours = [_hour(hour) for hour in sky.hours(FIRST_HOUR, NOW, **site)]
    readings.store_hours(session, station, hours, readings.PULLED)
    readings.take_forecast(session, station, NOW.replace(minute=0), [_hour(hour) for hour in sky.forecast(NOW, **site)])


def load_places(hand: Hand, station_url: str) -> None:
    progress(1)
    at = day(2024, 1, 2)
    for name, site in SITES.items():
        payload = {
            "name": name,
            "latitude": STANDS[name][0],
            "longitude": STANDS[name][1],
            "elevation": STANDS[name][2],
            "kind": STANDS[name][3],
            "offset_minutes": OFFSET,
            "url": station_url,
        }
        hand.send("owner", "station.save", at, payload, made(name))
        load_weather(hand.session, name, site)
        hand.session.execute(text("UPDATE station SET heard_at = :now WHERE id = :id"), {"now": NOW, "id": made(name)})
    progress(2)
    for name, crop, place, cultivar, area, station, outline, harvest in BLOCKS:
        payload = {
            "name": name,
            "crop": crop,
            "place": place,
            "cultivar": cultivar,
            "area": area,
            "outline": [list(corner) for corner in ORIGIN.to_degrees(outline)],
            "station_id": str(made(station)),
            "weather": "nearby" if name in NEARBY else "station",
            "elevation": 520 if name in NEARBY else None,
            "harvest_from": harvest.isoformat() if harvest else None,
        }
        hand.send("owner", "block.save", at, payload, made(name))
    _rotate(hand, at)

    for kind, name, points, height in THINGS:
        spots = [list(spot) for spot in ORIGIN.to_degrees(points)]
        hand.send("owner", "feature.save", at, {"feature": kind, "name": name, "points": spots, "height": height}, made(f"plan/{kind}"))
    frame = [list(spot) for spot in ORIGIN.to_degrees([(660, 110), (690, 110), (690, 125), (660, 125)])]
    cold = {"feature": "incoming", "name": "Cold frame", "points": frame, "check_days": 5}
    hand.send("owner", "feature.save", at, cold, made("plan/incoming"))


def _rotate(hand: Hand, at: dt.datetime) -> None:
    """Mill Piece bore onions before its cabbages, and is to bear potatoes after them."""
    main = hand.session.query(Planting).filter_by(farm_id=FARM, block_id=made("Mill Piece")).one()
    cabbages = {"crop": main.crop, "cultivar": main.cultivar, "since": "2024-01-01", "harvest_from": str(main.harvest_from)}
    onions = {"crop": "onion", "since": "2023-03-20", "until": "2023-09-02"}
    potatoes = {"crop": "potato", "cultivar": "Brindle", "since": "2027-04-12", "follows": True}
    for planting, record, base in (
        (cabbages, main.id, main.command_id),
        (onions, made("onions"), None),
        (potatoes, made("potatoes"), None),
    ):
        hand.send("owner", "planting.save", at, {"block_id": str(made("Mill Piece")), **planting}, record, base)


def load_past(hand: Hand) -> None:
    """Two seasons: first catches, a hop yard that was sprayed, mites that were eaten, maggots found late."""
    progress(3)
    for year, catch, eggs in ((2024, 14, 30), (2025, 11, 27)):
        hand.biofix("Orchard A", day(year, 5, catch + 4), "codling-moth", dt.date(year, 5, catch), "Two males on two checks running")
        hand.biofix(
            "Long Field", day(year, 5, eggs), "colorado-potato-beetle", dt.date(year, 5, eggs), "First egg clusters on the edge rows"
        )
        hand.stages_seen("Orchard A", day(year, 6, 16), "codling-moth", "forty fruits, rows 3 to 6", **PAST_MOTHS[year])
        at = day(year, 6, 20)
        stop = hand.stop("Orchard A", at, "row 4, trap 1")
        look = hand.look(stop, at, "males-in-its-lure-trap fruit-entry-hole-with-frass stings-and-dimples", "fruit-exit-hole-at-the-end")
        sample = hand.sample(stop, at, "codling-moth", "7 9 8 10", measure="trap")
        call = hand.call("adviser", at, look, "codling-moth", sample, "granulovirus")
        hand.done(call, at + dt.timedelta(hours=11), 100, "ml", 1.6)
        while planned := hand.session.query(TreatmentRow).filter_by(farm_id=FARM, decision_id=call, state="planned").count():
            hand.done(call, at + dt.timedelta(days=30 - 10 * planned, hours=11), 100, "ml", 1.6)
        at = day(year, 7, 9)
        stop = hand.stop("Tunnel 2", at, "row 3")
        look = hand.look(stop, at, "stippling webbing-fine mites-and-round-eggs", "slender-insects-on-paper")
        sample = hand.sample(stop, at, "two-spotted-spider-mite", "9 6 11 7 14 8 10 5 9 12", "0 0 1 0 0 0 1 0 0 0")
        call = hand.call("scout", at, look, "two-spotted-spider-mite", sample, "release-predatory-mites")
        hand.done(call, at + dt.timedelta(hours=28), 3, "bottles", 0.15)
        at = day(year, 7, 16)
        stop = hand.stop("Tunnel 2", at, "row 3")
        hand.sample(stop, at, "two-spotted-spider-mite", "4 3 6 2 5 3 4 2 4 5", "1 1 2 0 1 1 1 0 1 1")
        at = day(year, 6, 3)
        stop = hand.stop("Mill Piece", at, "north edge")
        look = hand.look(
            stop, at, "drooping whole-plant-dead-among-green-ones roots-chewed legless-white-maggots", "soil-dry-a-finger-deep"
        )
        sample = hand.sample(stop, at, "cabbage-maggot", "1 0 0 0 1 0 0 0 0 0 0 0 1 0 0 0 0 0 0 0", measure="proportion")
        hand.call("scout", at, look, "cabbage-maggot", sample)
        hand.answer_all()


def load_present(hand: Hand) -> None:
    """This year up to the eighteenth of June, when the demo begins."""
    progress(4)
    hand.biofix("Orchard A", day(2026, 5, 18), "codling-moth", dt.date(2026, 5, 15), "Two males on two checks running")
    hand.biofix("Orchard B", day(2026, 5, 21), "codling-moth", dt.date(2026, 5, 18), "Two males on two checks running")
    hand.biofix("Long Field", day(2026, 5, 26), "colorado-potato-beetle", dt.date(2026, 5, 26), "First egg clusters on the edge rows")

    trap = hand.trap("Trap 1", "Orchard A", day(2026, 4, 28), "codling-moth", 150, 92)
    hand.caught(trap, 2026, "5/2=0 5/6=0 5/9=1 5/12=0 5/15=2 5/18=2 5/22=4 5/26=7 5/30=6 6/3=9 6/7=8 6/11=11 6/15=8", "6/7")
    two = hand.trap("Trap 2", "Orchard B", day(2026, 4, 28), "codling-moth", 352, 88)
    hand.caught(two, 2026, "5/2=0 5/6=0 5/12=1 5/15=0 5/18=2 5/21=2 5/26=4 5/30=5 6/3=6 6/7=7 6/11=5 6/14=6")
    hand.caught(
        hand.trap("Trap 3", "Mill Piece", day(2026, 6, 1), "diamondback-moth", 520, 238, check_days=4), 2026, "6/5=0 6/9=0 6/13=3 6/17=5"
    )
    for block, stages in (("Orchard A", "4/14=57 4/19=61 4/23=65 4/30=69 5/20=72 6/12=74"), ("Long Field", "5/8=9 6/2=31 6/16=60")):
        for noted in stages.split():
            when, code = noted.split("=")
            month, date = (int(part) for part in when.split("/"))
            hand.crop_stage(block, day(2026, month, date), int(code))
    hand.stages_seen(
        "Long Field", day(2026, 6, 10, 9), "colorado-potato-beetle", "edge by last year's field, 20 plants", egg=31, larva=22, adult=6
    )

    at = day(2026, 6, 16)
    stop = hand.stop("Mill Piece", at, "north edge, row 2")
    look = hand.look(
        stop, at, "drooping whole-plant-dead-among-green-ones roots-chewed legless-white-maggots", "soil-dry-a-finger-deep soil-sodden"
    )
    sample = hand.sample(stop, at, "cabbage-maggot", "1 1 0 1 0 1 1 0 0 1 1 0 1 0 1 1 0 0 1 0", measure="proportion")
    maggots = hand.call("scout", at, look, "cabbage-maggot", sample)

    at = day(2026, 6, 12)
    stop = hand.stop("Tunnel 2", at, "row 3, plants 4 to 14")
    look = hand.look(stop, at, "stippling webbing-fine mites-and-round-eggs", "slender-insects-on-paper predatory-mites")
    sample = hand.sample(
        stop, at, "two-spotted-spider-mite", "7 6 9 8 5 10 12 6 8 7 9 6 11 8 7 5 9 10 6 8", "0 0 0 0 0 1 0 0 0 0 0 0 0 0 0 0 0 1 0 0"
    )
    call = hand.call("scout", at, look, "two-spotted-spider-mite", sample, "release-predatory-mites")
    hand.done(call, day(2026, 6, 12, 16), 4, "bottles", 0.15)

    at = day(2026, 6, 15)
    stop = hand.stop("Orchard B", at, "row 2, tree 9")
    look = hand.look(stop, at, "honeydew flat-nymphs-in-drops insects-fly-up-when-shaken", "sooty-film soil-dry-a-finger-deep")
    sample = hand.sample(stop, at, "pear-psylla", "3 1 2 4 0 2 3 1 2 2 5 1 0 2 3 1 2 2 1 3", "1 0 1 2 0 1 1 0 1 1 2 0 0 1 1 0 1 1 0 1")
    hand.call("scout", at, look, "pear-psylla", sample)

    at = day(2026, 6, 17, 8)
    stop = hand.stop("Orchard A", at, "row 4, trap 1")
    look = hand.look(stop, at, "males-in-its-lure-trap fruit-entry-hole-with-frass stings-and-dimples", "fruit-exit-hole-at-the-end")
    sample = hand.sample(stop, at, "codling-moth", "8 7 9 8", measure="trap")
    hand.call("adviser", at, look, "codling-moth", sample, "granulovirus")

    at = day(2026, 6, 17, 10)
    stop = hand.stop("Birch bed", at, "second row")
    look = hand.look(
        stop,
        at,
        "circles-cut-from-the-edge leaf-still-green-and-working bee-carrying-leaf",
        "chewed-holes edge-notches black-pellets-on-leaves",
    )
    hand.call("scout", at, look, "leafcutter-bee")

    at = day(2026, 6, 17, 12)
    stop = hand.stop("Tunnel 1", at, "row 11, plant 4")
    hand.look(stop, at, "stippling curl-up", "black-specks-in-silver", "Pale points on old leaves, tips curled. Ran out of time.")

    at = day(2026, 6, 10)
    stop = hand.stop("Long Field", at, "edge by last year's field")
    look = hand.look(stop, at, "egg-cluster-yellow-upright ten-striped-beetles chewed-holes", "stubs")
    sample = hand.sample(
        stop, at, "colorado-potato-beetle", "0 1 0 0 2 0 0 1 0 0 0 1 0 0 0 0 1 0 0 0", "0 1 0 0 0 0 0 0 0 1 0 0 0 0 0 0 0 0 0 0"
    )
    hand.call("scout", at, look, "colorado-potato-beetle", sample)

    load_last(hand)
    asked = {"decision_id": str(maggots), "decision_version": 1, "stance": "asks"}
    hand.send("scout", "opinion.give", day(2026, 6, 16, 12), asked | {"words": "Half the plants have maggots already. Is a net too late?"})


def load_last(hand: Hand) -> None:
    """What came last: a stop that was opened and left, and what strangers sent."""
    hand.stop("Hop yard", day(2026, 6, 9), "bines 1 to 10")
    hand.enquiry(
        day(2026, 6, 11, 15),
        "The mill's rose garden",
        "photograph",
        "rose",
        "bed",
        "Something stamps round holes out of our roses, and we see nothing on them. Should we spray?",
        "circles-cut-from-the-edge leaf-still-green-and-working bee-carrying-leaf",
        "black-pellets-on-leaves edge-notches",
    )
    hand.enquiry(
        day(2026, 6, 17, 15),
        "Kitchen garden, upper lane",
        "leaf",
        "tomato",
        "greenhouse",
        "Lower leaves look like bronze and roll down at the edge. It goes up the plant.",
        "bronzing curl-down",
    )


def load(station_url: str = "", *, owner_url: str | None = None, bind: Any = None, password: str | None = PASSWORD) -> bool:
    """Load the demo farm unless it is there. One transaction for all that people did; True where it was loaded.

    password: of its people; None where nobody is to sign in as one of them.
    """
    with farm_session(FARM, bind=bind) as session:
        if session.get(Farm, FARM):
            if station_url:
                session.execute(text("UPDATE station SET url = :url WHERE farm_id = :farm"), {"url": station_url, "farm": FARM})
            return False
    progress(0)
    load_people(owner_url or os.environ["BOOTMARK_OWNER_URL"], hash_password(password) if password else NOBODY)
    with farm_session(FARM, bind=bind) as session:
        hand = Hand(session)
        load_places(hand, station_url)
        load_past(hand)
        load_present(hand)
    return True


def main() -> int:
    """The database brought up to date and the demo in it, in one process: a start is to be quick."""
    failed = setup.main()
    if not failed:
        load(os.environ.get("BOOTMARK_STATION", ""))
    return failed


if __name__ == "__main__":
    sys.exit(main())
