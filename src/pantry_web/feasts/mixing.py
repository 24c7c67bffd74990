"""From a stored dish to the core's request, and back to what the core says of it."""

from dataclasses import dataclass, replace

from pantry_core.meat import Meat
from pantry_core.mixes.nitrite import nitrite_case
from pantry_core.mixes.request import Cure, Method, WeighRequest
from pantry_core.mixes.result import WeighOut
from pantry_core.mixes.weigh import weigh
from pantry_core.notice import Notice
from pantry_core.routes.cuts import CUTS, Cut
from pantry_core.routes.schools import Schooling, SchoolName, schooling
from pantry_core.routes.steps import Route, route
from pantry_core.routes.thickness import guess_notice, guessed_thickness
from pantry_core.rules.profiles import PROFILES, ProfileName
from pantry_web.feasts.models import Dish
from pantry_web.kitchens.models import Kitchen

METHODS: dict[Dish.Method, Method] = {
    Dish.Method.EVEN_BRINE: "even-brine",
    Dish.Method.DRY_CURE: "dry-cure",
    Dish.Method.DRY_BRINE: "dry-brine",
}


SCHOOLS: dict[Dish.School, SchoolName] = {
    Dish.School.MODEL: "model",
    Dish.School.WEEK_AN_INCH: "week-an-inch",
    Dish.School.TWO_DAYS_A_KILO: "two-days-a-kilo",
    Dish.School.FIVE_DAYS: "five-days",
    Dish.School.FORTNIGHT: "fortnight",
}
LONGEST_WAIT_D = 365.0
"""A wait beyond a year is as good as a year: it stops all the same."""


@dataclass(frozen=True, slots=True)
class Mix:
    """What the cook decided of a dish: masses [g], thickness [mm], percentages as percent."""

    cut: str
    mass_g: float
    thickness_mm: float
    bone_share: float
    is_frozen: bool
    method: Method
    target_salt_pct: float
    sugar_pct: float
    water_g: float | None
    is_pink: bool
    school: SchoolName = "model"
    is_thickness_guessed: bool = False


@dataclass(frozen=True, slots=True)
class House:
    """What of a kitchen bears on a mix."""

    profile: ProfileName
    scale_division_g: float


@dataclass(frozen=True, slots=True)
class Mixed:
    """A mix worked out: the sheet and the route that follows from it."""

    request: WeighRequest
    sheet: WeighOut
    cut: Cut
    route: Route
    schools: Schooling

    @property
    def notices(self) -> tuple[Notice, ...]:
        """All notices, that of the raw clock included, stops first."""
        raw = self.route.notice
        if raw is None:
            return self.sheet.notices
        stops = self.sheet.stops
        rest = self.sheet.notices[len(stops) :]
        return (raw, *stops, *rest) if raw.level == "stop" else (*stops, raw, *rest)

    @property
    def stops(self) -> tuple[Notice, ...]:
        """What keeps the meat out."""
        return tuple(each for each in self.notices if each.level == "stop")


def work_out(mix: Mix, house: House) -> Mixed:
    """Work out a mix.

    Raises: pydantic.ValidationError for values outside the core's ranges.
    """
    request = weigh_request(mix, house)
    sheet = weigh(request)
    cut = CUTS[mix.cut]
    if mix.is_thickness_guessed:
        guess = guess_notice(guessed_thickness(cut, mix.mass_g), sheet.ready)
        stops = len(sheet.stops)
        sheet = replace(sheet, notices=(*sheet.stops, guess, *sheet.notices[stops:]))
    ready = sheet.ready.days if sheet.ready else None
    schools = schooling(mix.mass_g, mix.thickness_mm, ready)
    way = route(
        cut,
        mix.method,
        mass_g=mix.mass_g,
        wait_days=min(schools.chosen(mix.school), LONGEST_WAIT_D),
        verdict=sheet.nitrite.verdict,
        target_salt_pct=mix.target_salt_pct,
        frozen=mix.is_frozen,
    )
    return Mixed(request, sheet, cut, way, schools)


def house_of(kitchen: Kitchen) -> House:
    """What of a kitchen bears on a mix."""
    return House("eu" if kitchen.profile == Kitchen.Profile.EU else "us", kitchen.scale_division_g)


def mix_of(dish: Dish) -> Mix:
    """What the cook decided of a stored dish."""
    return Mix(
        cut=dish.cut,
        mass_g=dish.mass_g,
        thickness_mm=dish.thickness_mm,
        bone_share=dish.bone_share,
        is_frozen=dish.is_frozen,
        method=METHODS[Dish.Method(dish.method)],
        target_salt_pct=dish.target_salt_pct,
        sugar_pct=dish.sugar_pct,
        water_g=dish.water_g,
        is_pink=dish.is_pink,
        school=SCHOOLS[Dish.School(dish.school)],
        is_thickness_guessed=dish.is_thickness_guessed,
    )


def weigh_request(mix: Mix, house: House) -> WeighRequest:
    """The `weigh` document of a mix; a pink one asks for the usual nitrite of its kind."""
    cut = CUTS[mix.cut]
    meat = Meat(
        kind=cut.kind,
        mass_g=mix.mass_g,
        thickness_mm=mix.thickness_mm,
        shape=cut.shape,
        bone_share=mix.bone_share,
        will_be=cut.will_be,
        water_share=cut.water.value if cut.water else None,
        closed_faces=cut.closed_faces,
    )
    is_brine = mix.method == "even-brine"
    limits = PROFILES[house.profile].nitrite[nitrite_case(meat, is_brine=is_brine)]
    return WeighRequest(
        profile=house.profile,
        meat=meat,
        method=mix.method,
        target_salt_pct=mix.target_salt_pct,
        water_g=mix.water_g if is_brine else None,
        sugar_pct=mix.sugar_pct,
        cure=Cure(name="cure-1", ingoing_ppm=limits.usual.value) if mix.is_pink else None,
        scale_division_g=house.scale_division_g,
    )
