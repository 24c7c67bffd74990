"""From a stored dish to the core's request, and back to what the core says of it."""

from collections.abc import Mapping
from dataclasses import asdict, dataclass, field, fields, replace
from typing import Literal

from pantry_core.measures.scales import Scale, scale_for
from pantry_core.meat import Meat
from pantry_core.mixes.cautions import in_order
from pantry_core.mixes.judged import Judged
from pantry_core.mixes.mix import mixed
from pantry_core.mixes.request import Cure, WeighRequest
from pantry_core.mixes.result import WeighOut
from pantry_core.mixes.sizing import with_usual_cure
from pantry_core.mixes.weigh import judged_of, sheet_of
from pantry_core.notice import Notice
from pantry_core.routes.customs import CUSTOMS, Customs
from pantry_core.routes.cuts import CUTS, Cut
from pantry_core.routes.schools import Schooling, SchoolName, schooling
from pantry_core.routes.steps import Route, route
from pantry_core.routes.thickness import guess_notice, guessed_thickness
from pantry_core.routes.ways import WAYS, Way, WayName
from pantry_core.rules.cures import CureName
from pantry_core.rules.profiles import ProfileName
from pantry_web.feasts.models import Dish
from pantry_web.kitchens.models import Kitchen
from pantry_web.pantry.larder import Larder, larder_of

SCHOOLS: dict[str, SchoolName] = {
    Dish.School.MODEL: "model",
    Dish.School.WEEK_AN_INCH: "week-an-inch",
    Dish.School.TWO_DAYS_A_KILO: "two-days-a-kilo",
    Dish.School.FIVE_DAYS: "five-days",
    Dish.School.FORTNIGHT: "fortnight",
}
LONGEST_WAIT_D = 365.0
"""A wait beyond a year is as good as a year: it stops all the same."""
USUAL_STRENGTH_PCT, USUAL_INJECTION_SHARE = 10.0, 0.10
"""Strength of a strong brine, and share by needle, where the cook says none (common practice)."""
LABELLED: Mapping[CureName, str] = {"nitrite-salt": "nitrite-salt", "celery": "celery-powder"}
"""Curing salts whose strength only a label tells, and what they are in the pantry."""


@dataclass(frozen=True, slots=True)
class SauceLine:
    """A sauce as the cook wrote it, and what it comes to [g, %]."""

    text: str
    name: str
    mass_g: float
    salt_pct: float | None = None


@dataclass(frozen=True, slots=True)
class SpiceLine:
    """A spice as it was written, scaled; `held_back` is the share that is kept for the pot [-]."""

    text: str
    amount: float
    unit: str
    held_back: float = 0.0


@dataclass(frozen=True, slots=True)
class Mix:
    """What the cook decided of a dish: masses [g], thickness [mm], percentages as percent.

    `ingoing_ppm` None asks for what is usual; `nitrite_pct` None takes the label in the pantry.
    """

    cut: str
    mass_g: float
    thickness_mm: float
    bone_share: float
    is_frozen: bool
    method: WayName
    target_salt_pct: float
    sugar_pct: float = 0.0
    water_g: float | None = None
    cure: CureName | None = None
    nitrite_pct: float | None = None
    ingoing_ppm: float | None = None
    brine_salt_pct: float | None = None
    injection_share: float | None = None
    sauces: tuple[SauceLine, ...] = ()
    spices: tuple[SpiceLine, ...] = ()
    school: SchoolName = "model"
    is_thickness_guessed: bool = False
    customs: Customs = field(default_factory=Customs)

    @property
    def way(self) -> Way:
        """Its method."""
        return WAYS[self.method]


@dataclass(frozen=True, slots=True)
class House:
    """What of a kitchen bears on a mix."""

    profile: ProfileName
    larder: Larder = field(default_factory=Larder)


@dataclass(frozen=True, slots=True)
class Mixed:
    """A mix worked out: what it comes to, the sheet, and the route that follows from it."""

    request: WeighRequest
    judged: Judged
    sheet: WeighOut
    cut: Cut
    route: Route
    schools: Schooling

    @property
    def notices(self) -> tuple[Notice, ...]:
        """All notices, those of the route included, stops first."""
        return in_order((*self.route.notices, *self.sheet.notices))

    @property
    def stops(self) -> tuple[Notice, ...]:
        """What keeps the meat out."""
        return tuple(each for each in self.notices if each.level == "stop")


def work_out(mix: Mix, house: House) -> Mixed:
    """Work out a mix.

    Raises: pydantic.ValidationError for values outside the core's ranges.
    """
    request = weigh_request(mix, house)
    judged = judged_of(request)
    sheet = sheet_of(judged)
    cut, way = CUTS[mix.cut], mix.way
    if mix.is_thickness_guessed:
        guess = guess_notice(guessed_thickness(cut, mix.mass_g), sheet.ready)
        stops = len(sheet.stops)
        sheet = replace(sheet, notices=(*sheet.stops, guess, *sheet.notices[stops:]))
    if _is_raw_fish(mix):
        sheet = replace(sheet, notices=tuple(map(_by_the_cooks_word, sheet.notices)))
    wait = judged.wait
    schools = schooling(mix.mass_g, mix.thickness_mm, wait.days if wait else None)
    wait_days = schools.chosen(mix.school if way.timing == "school" else "model")
    way_taken = route(
        cut,
        way,
        mass_g=mix.mass_g,
        wait_days=min(wait_days, LONGEST_WAIT_D),
        judged=judged,
        frozen=mix.is_frozen,
        customs=mix.customs,
    )
    return Mixed(request, judged, sheet, cut, way_taken, schools)


def _is_raw_fish(mix: Mix) -> bool:
    return CUTS[mix.cut].kind == "fish" and mix.customs.is_raw


def _by_the_cooks_word(told: Notice) -> Notice:
    """The stop against parasites falls once the cook has said how the fish is frozen."""
    if told.code != "parasites":
        return told
    text = (
        f"{told.text} By your word this one is. Pregnant, over 65, under 5 or of weak immunity: "
        "no raw-cured fish."
    )
    return replace(told, level="caution", text=text)


def house_of(kitchen: Kitchen) -> House:
    """What of a kitchen bears on a mix."""
    return House("eu" if kitchen.profile == Kitchen.Profile.EU else "us", larder_of(kitchen))


def mix_of(dish: Dish) -> Mix:
    """What the cook decided of a stored dish.

    Raises: TypeError for a side job, which has no piece.
    """
    if dish.thickness_mm is None:
        raise TypeError(f"{dish} is a side job")
    known = {each.id for each in CUSTOMS}
    return Mix(
        cut=dish.cut,
        mass_g=dish.mass_g,
        thickness_mm=dish.thickness_mm,
        bone_share=dish.bone_share,
        is_frozen=dish.is_frozen,
        method=WAYS[dish.method].id,  # type: ignore[index]  # the database holds ids of ways
        target_salt_pct=dish.target_salt_pct,
        sugar_pct=dish.sugar_pct,
        water_g=dish.water_g,
        cure=dish.cure or None,  # type: ignore[arg-type]  # and names of curing salts
        nitrite_pct=dish.nitrite_pct,
        ingoing_ppm=dish.ingoing_ppm,
        brine_salt_pct=dish.brine_salt_pct,
        injection_share=dish.injection_share,
        sauces=tuple(SauceLine(**each) for each in dish.sauces),
        spices=tuple(SpiceLine(**each) for each in dish.spices),
        school=SCHOOLS[dish.school],
        is_thickness_guessed=dish.is_thickness_guessed,
        customs=Customs(**{name: side for name, side in dish.customs.items() if name in known}),
    )


def stored(mix: Mix) -> dict[str, object]:
    """A mix as the fields of a dish."""
    plain = {each.name: getattr(mix, each.name) for each in fields(mix)}
    return plain | {
        "cure": mix.cure or "",
        "sauces": [asdict(each) for each in mix.sauces],
        "spices": [asdict(each) for each in mix.spices],
        "customs": asdict(mix.customs),
    }


def weigh_request(mix: Mix, house: House) -> WeighRequest:
    """The `weigh` document of a mix; a cured one asks for the usual nitrite of its kind.

    The scale is that which would weigh the curing salt, or the least line.
    """
    asked = _without_scale(mix, house)
    cure = asked.cure
    if cure is not None and mix.ingoing_ppm is None:
        asked = with_usual_cure(asked, cure)
    masses = mixed(asked)
    smallest = masses.curing_salt or masses.plain_salt
    scale = scale_for(house.larder.scales, smallest) or max(
        house.larder.scales, key=lambda each: each.capacity_g
    )
    asked = asked.model_copy(update={"scale_division_g": scale.division_g})
    return asked if cure is None or mix.ingoing_ppm is not None else with_usual_cure(asked, cure)


def scale_of(house: House, grams: float) -> Scale | None:
    """The scale for a line, None when no scale holds it."""
    return scale_for(house.larder.scales, grams)


def _without_scale(mix: Mix, house: House) -> WeighRequest:
    cut, way = CUTS[mix.cut], mix.way
    meat = Meat(
        kind=cut.kind,
        mass_g=mix.mass_g,
        thickness_mm=mix.thickness_mm,
        shape=cut.shape,
        bone_share=mix.bone_share,
        will_be=_will_be(mix, cut),
        storage=mix.customs.kept,
        wild=mix.customs.wild if cut.kind == "game" else None,
        species=cut.species,
        water_share=cut.water.value if cut.water else None,
        closed_faces=cut.closed_faces,
    )
    strength = mix.brine_salt_pct or USUAL_STRENGTH_PCT
    return WeighRequest(
        profile=house.profile,
        meat=meat,
        method=way.method,
        cover=way.cover,
        heaped=way.heaped,
        target_salt_pct=mix.target_salt_pct,
        water_g=mix.water_g if way.has_water else None,
        sugar_pct=mix.sugar_pct,
        brine_salt_pct=strength if way.method == "strong-brine" else None,
        injection_share=mix.injection_share or USUAL_INJECTION_SHARE,
        cure=_cure(mix, house),
        treatment=mix.customs.treatment,
        sauces=tuple(
            {"name": each.name, "mass_g": each.mass_g, "salt_pct": each.salt_pct}  # type: ignore[misc]  # made documents by Pydantic
            for each in mix.sauces
        ),
    )


def _will_be(mix: Mix, cut: Cut) -> Literal["bacon", "raw", "smoked"] | None:
    if _is_raw_fish(mix):
        return "raw"
    return cut.will_be or ("smoked" if mix.customs.heat == "smoked" else None)


def _cure(mix: Mix, house: House) -> Cure | None:
    """The curing salt by its label, asked for what the cook says, if anything."""
    if mix.cure is None:
        return None
    asked = {} if mix.ingoing_ppm is None else {"ingoing_ppm": mix.ingoing_ppm}
    packet = house.larder.packets.get(LABELLED.get(mix.cure, ""))
    nitrite_pct = mix.nitrite_pct
    if nitrite_pct is None and packet is not None:
        nitrite_pct = packet.nitrite_pct
    return Cure(
        name=mix.cure,
        nitrite_pct=nitrite_pct if mix.cure in LABELLED else None,
        **asked,
    )
