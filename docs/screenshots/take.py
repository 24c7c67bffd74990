"""Take the pictures of the main views anew, from the demo kitchen: `bin/pictures`."""

import sys
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

HERE = Path(__file__).parent
SIZES = {"wall": (1280, 800), "phone": (390, 844)}
ON_THE_PHONE = ("today", "mix", "recipe", "passage", "steps", "feast")
RECIPE = "2 qt water\n1 cup coarse salt\n½ cup brown sugar\n1½ tbsp pink curing salt\n3 bay leaves"
MEANT = {
    "1 cup coarse salt": "Compact coarse salt", "1½ tbsp pink curing salt": "Curing salt no. 1",
}  # fmt: skip
"""What the cook answers of the lines that could mean two things."""
BEFORE, NOW = "2027-03-05T08:00", "2027-03-18T19:12"
VIEWS = {
    "today": ("/", NOW),
    "mix": ("/dishes/1/mix/", BEFORE),
    "recipe": ("/dishes/1/recipe/", BEFORE),
    "weighing": ("/dishes/1/weighing/", BEFORE),
    "kitchen": ("/pantry/", NOW),
    "shopping": ("/shopping/", NOW),
    "passage": ("/feasts/1/passage/", NOW),
    "helps": ("/feasts/2/", NOW),
    "fire": ("/fire/", NOW),
    "steps": ("/dishes/1/steps/", NOW),
    "feast": ("/feasts/1/", NOW),
    "notes": ("/dishes/12/notes/", NOW),
    "afterwards": ("/feasts/5/afterwards/", NOW),
}


def main(address: str) -> None:
    """Sign in, set the demo clock for each view, and take it in both sizes."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path="/usr/bin/chromium-headless-shell",
            args=["--no-sandbox", "--disable-gpu", "--disable-background-networking"],
        )
        for size, (width, height) in SIZES.items():
            page = browser.new_page(
                base_url=address,
                viewport={"width": width, "height": height},
                locale="en-GB",
                service_workers="block",
            )
            page.goto("/sign-in/")
            page.get_by_label("Username").fill("quince")
            page.get_by_label("Password").fill("lantern-night")
            page.get_by_role("button", name="Sign in").click()
            for view, (path, moment) in VIEWS.items():
                if size == "phone" and view not in ON_THE_PHONE:
                    continue
                _set_clock(page, moment)
                page.goto(path)
                if view == "recipe":
                    page.get_by_label("The recipe, one thing a line").fill(RECIPE)
                    for line, name in MEANT.items():
                        page.get_by_label(f"What is “{line}”?").select_option(name)
                        page.wait_for_timeout(1000)  # the answer is swapped in
                    page.get_by_text("It comes to").wait_for()
                if view == "today":
                    page.get_by_text("worked out anew").wait_for(state="detached")
                if view == "helps":
                    page.locator(".help button").first.wait_for()
                page.screenshot(path=HERE / f"{view}-{size}.png", full_page=size == "phone")
        browser.close()


def _set_clock(page: Page, moment: str) -> None:
    page.goto("/house/")
    page.get_by_label("The demo clock stands at").fill(moment)
    page.get_by_role("button", name="Set the clock").click()
    page.goto("/feasts/1/")
    page.get_by_text("being worked out").wait_for(state="detached")


if __name__ == "__main__":
    main(sys.argv[1])
