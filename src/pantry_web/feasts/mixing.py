"""From a stored dish to the core's request, and back to what the core says of it."""

from collections.abc import Mapping
from dataclasses import asdict, dataclass, field, fields, replace

from pantry_core.dish.curing import usual_curing_salt
from pantry_core.dish.piece import prepared
from pantry_core.dish.request import CustomsAsked, DishRequest
from pantry_core.dish.work import worked
from pantry_core.measures.scales import Scale, scale_for
from pantry_core.mixes.judged import Judged
from pantry_core.mixes.request import WeighRequest
from pantry_core.mixes.result import WeighOut
from pantry_core.notice import Notice
from pantry_core.routes.customs import CUSTOMS, Customs
from pantry_core.routes.cuts import CUTS, Cut
from pantry_core.routes.schools import Schooling, SchoolName
from pantry_core.routes.steps import Route
from pantry_core.routes.ways import WAYS, Way, WayName
from pantry_core.rules.cures import CURE_KEYS, CureName
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
    notices: tuple[Notice, ...]

    @property
    def stops(self) -> tuple[Notice, ...]:
        """What keeps the meat out."""
        return tuple(each for each in self.notices if each.level == "stop")


def work_out(mix: Mix, house: House) -> Mixed:
    """Work out a mix.

    Raises: pydantic.ValidationError for values outside the core's ranges.
    """
    found = worked(dish_request(mix, house))
    settled, sheet = found.settled, found.out.sheet
    if sheet is None:
        raise TypeError("a mix has a method")
    notices = tuple(Notice(e.level, e.code, e.text, e.basis) for e in found.out.notices)
    return Mixed(
        settled.request,
        settled.judged,
        replace(sheet, notices=notices),
        settled.piece.cut,
        found.route,
        settled.schools,
        notices,
    )


def dish_request(mix: Mix, house: House) -> DishRequest:
    """The `dish` document of a mix: what the cook decided, and what the kitchen has.

    Raises: pydantic.ValidationError for values outside the core's ranges.
    """
    cut, way, customs = CUTS[mix.cut], mix.way, mix.customs
    is_smoked = customs.heat == "smoked" and cut.kind != "vegetable"
    piece = {
        "cut": mix.cut, "mass_g": mix.mass_g, "bone_share": mix.bone_share,
        "thickness_mm": None if mix.is_thickness_guessed else mix.thickness_mm,
        "frozen": mix.is_frozen, "treatment": customs.treatment, "storage": customs.kept,
        "wild": customs.wild if cut.kind == "game" else None,
    }  # fmt: skip
    will_be = _will_be(mix, cut, is_smoked=is_smoked)
    cure = {
        "method": mix.method, "school": mix.school, "target_salt_pct": mix.target_salt_pct,
        "sugar_pct": mix.sugar_pct, "water_g": mix.water_g if way.has_water else None,
        "brine_salt_pct": mix.brine_salt_pct, "curing_salt": mix.cure,
        "ingoing_ppm": mix.ingoing_ppm, "nitrite_pct": mix.nitrite_pct,
        "injection_share": mix.injection_share,
        "sauces": [
            {"name": each.name, "mass_g": each.mass_g, "salt_pct": each.salt_pct}
            for each in mix.sauces
        ],
    }  # fmt: skip
    heat = {"way": "smoke" if is_smoked else None, "vegetables": customs.vegetables == "late"}
    return DishRequest.model_validate(
        {
            "profile": house.profile,
            "piece": piece | ({"will_be": will_be} if will_be else {}),
            "cure": cure,
            "heat": heat,
            "customs": {name: getattr(customs, name) for name in CustomsAsked.model_fields},
            "house": {
                "scales": [
                    {"name": e.name, "division_g": e.division_g, "capacity_g": e.capacity_g}
                    for e in house.larder.scales
                ],
                "packets": [
                    {"name": name, "nitrite_pct": packet.nitrite_pct}
                    for name, key in CURE_KEYS.items()
                    if (packet := house.larder.packets.get(key)) is not None
                ],
            },
        }
    )


def usual_cure(mix: Mix, house: House) -> CureName | None:
    """The curing salt that belongs to a piece by its method, whatever the mix says of one.

    Raises: pydantic.ValidationError for values outside the core's ranges.
    """
    asked = dish_request(replace(mix, cure=None), house)
    piece = prepared(asked.piece) if asked.piece else None
    return usual_curing_salt(asked, piece, mix.way) if piece else None


def _will_be(mix: Mix, cut: Cut, *, is_smoked: bool) -> str | None:
    if cut.kind == "fish" and mix.customs.is_raw:
        return "raw"
    return cut.will_be or ("smoked" if is_smoked else None)


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


def scale_of(house: House, grams: float) -> Scale | None:
    """The scale for a line, None when no scale holds it."""
    return scale_for(house.larder.scales, grams)
