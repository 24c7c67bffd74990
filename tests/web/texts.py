"""What a page says."""

from html.parser import HTMLParser


class Texts(HTMLParser):
    """What a page says, to the eye and to the ear, without what the cook has typed."""

    UNSAID = {"script", "style", "textarea", "option", "kbd"}
    HEARD = {"aria-label", "title", "alt", "aria-valuetext", "placeholder"}

    def __init__(self):
        super().__init__()
        self.said, self._inside = [], []

    def handle_starttag(self, tag, attributes):
        known = dict(attributes)
        self.said += [str(known[name]) for name in self.HEARD if known.get(name)]
        if tag in self.UNSAID or "metric-too" in (known.get("class") or ""):
            self._inside.append(tag)

    def handle_endtag(self, tag):
        if self._inside and self._inside[-1] == tag:
            self._inside.pop()

    def handle_data(self, text):
        if not self._inside and text.strip():
            self.said.append(" ".join(text.split()))
