"""What a page says."""

from html.parser import HTMLParser

METRIC_TOO = "metric-too"
"""The class of what stands in metric units whatever the kitchen's."""
HEARD = {"aria-label", "title", "alt", "aria-valuetext", "placeholder"}
UNSAID = {"script", "style", "textarea", "kbd"}
APART = {"option", "cite"}
"""Tags whose texts do not count for every question."""


class Texts(HTMLParser):
    """What a page says, to the eye and to the ear, without what the cook has typed."""

    def __init__(self, page):
        super().__init__()
        self._said, self._inside = [], []
        self.feed(page)

    def but(self, *without):
        """All texts but those that stand inside some tags."""
        return [text for text, around in self._said if not around.intersection(without)]

    def handle_starttag(self, tag, attributes):
        known = dict(attributes)
        self._said += [(str(known[name]), frozenset()) for name in HEARD if known.get(name)]
        is_unsaid = tag in UNSAID or METRIC_TOO in (known.get("class") or "")
        if is_unsaid or tag in APART:
            self._inside.append((tag, is_unsaid))

    def handle_endtag(self, tag):
        if self._inside and self._inside[-1][0] == tag:
            self._inside.pop()

    def handle_data(self, text):
        if text.strip() and not any(is_unsaid for _, is_unsaid in self._inside):
            around = frozenset(tag for tag, _ in self._inside)
            self._said.append((" ".join(text.split()), around))
