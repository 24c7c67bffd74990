"""A new password for whoever forgot theirs, by a link that only the console gives."""

from django.contrib import messages
from django.contrib.auth.decorators import login_not_required
from django.contrib.auth.forms import SetPasswordForm
from django.contrib.auth.tokens import default_token_generator
from django.contrib.auth.views import PasswordResetConfirmView
from django.http import HttpResponse
from django.urls import reverse, reverse_lazy
from django.utils.decorators import method_decorator
from django.utils.encoding import force_bytes
from django.utils.http import urlsafe_base64_encode
from django.utils.translation import gettext

from pantry_web.kitchens.models import Cook


@method_decorator(login_not_required, name="dispatch")
class NewPassword(PasswordResetConfirmView):
    """Set it; the link ends after an hour, or with the next signing in."""

    template_name = "members/new_password.html"
    success_url = reverse_lazy("sign-in")

    def form_valid(self, form: "SetPasswordForm[Cook]") -> HttpResponse:
        """Keep it."""
        messages.success(self.request, gettext("Your password is changed. Sign in with it."))
        response: HttpResponse = super().form_valid(form)
        return response


def new_password_path(cook: Cook) -> str:
    """The path of a page on which a cook sets a new password within an hour."""
    who = urlsafe_base64_encode(force_bytes(cook.pk))
    return reverse("new-password", args=[who, default_token_generator.make_token(cook)])
