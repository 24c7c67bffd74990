"""What every form carries that changes something."""

from uuid import uuid4

from django import template
from django.template import Context
from django.utils.html import format_html
from django.utils.safestring import SafeString

register = template.Library()


@register.simple_tag(takes_context=True)
def once(context: Context) -> SafeString:
    """The token that proves where the form is from, and the key by which it is known again."""
    return format_html(
        '<input type="hidden" name="csrfmiddlewaretoken" value="{}">'
        '<input type="hidden" name="once" value="{}" autocomplete="off">',
        context.get("csrf_token", ""),
        uuid4(),
    )
