"""Signing in, and who cooks in a kitchen."""

from collections.abc import Callable

from django.contrib import messages
from django.contrib.auth import login, logout
from django.contrib.auth.decorators import login_not_required
from django.contrib.auth.forms import AuthenticationForm, PasswordChangeForm
from django.contrib.auth.views import LoginView, PasswordChangeView
from django.http import Http404, HttpRequest, HttpResponse, HttpResponseRedirect
from django.shortcuts import get_object_or_404, redirect, render
from django.urls import reverse, reverse_lazy
from django.utils.decorators import method_decorator
from django.utils.translation import gettext
from django.views.decorators.cache import never_cache
from django.views.decorators.http import require_POST

from pantry_web.kitchens.access import (
    choose_kitchen,
    cook_of,
    kitchen_of,
    membership_of,
    owned_kitchen_of,
)
from pantry_web.kitchens.actions.found_kitchen import OVEN_SHELVES, found_kitchen
from pantry_web.kitchens.models import Cook, Membership
from pantry_web.members.actions.change_member import remove_member, set_role
from pantry_web.members.actions.invite import end_invitation, invite
from pantry_web.members.actions.join import OVER, join, join_as_new
from pantry_web.members.actions.sign_out import sign_out_everywhere
from pantry_web.members.first_start import forget_start_word
from pantry_web.members.forms import FirstStartForm, NewCookForm, RoleForm
from pantry_web.members.links import invitation_of, open_links
from pantry_web.members.models import Invitation
from pantry_web.members.throttle import know_browser
from pantry_web.presses.once import once
from pantry_web.refusal import Refused

BACKEND = "django.contrib.auth.backends.ModelBackend"


@method_decorator(login_not_required, name="dispatch")
class SignIn(LoginView):
    """Sign in; where nobody can yet, go and make the owner."""

    template_name = "members/sign_in.html"
    redirect_authenticated_user = True

    def get(self, request: HttpRequest, *args: object, **kwargs: object) -> HttpResponse:
        """Show the form."""
        if not Cook.objects.exists():
            return redirect("first-start")
        return super().get(request, *args, **kwargs)

    def form_valid(self, form: AuthenticationForm) -> HttpResponse:
        """Sign in, and know this browser again."""
        response: HttpResponse = super().form_valid(form)
        know_browser(self.request, response, cook_of(self.request).username)
        return response


class ChangePassword(PasswordChangeView):
    """Another password; every other session of the cook ends with the old one."""

    template_name = "members/password.html"
    success_url = reverse_lazy("members")

    def form_valid(self, form: PasswordChangeForm) -> HttpResponse:
        """Change it."""
        messages.success(
            self.request, gettext("Your password is changed; you are signed out elsewhere.")
        )
        response: HttpResponse = super().form_valid(form)
        return response


@login_not_required
def first_start(request: HttpRequest) -> HttpResponse:
    """Make the owner and the kitchen, once: afterwards this page does not exist."""
    if Cook.objects.exists():
        raise Http404
    form = FirstStartForm(request.POST or None)
    if request.method == "POST" and form.is_valid():
        with once():
            if Cook.objects.exists():
                raise Http404
            owner = form.save()
            typed = form.cleaned_data
            found_kitchen(
                owner, typed["kitchen_name"], typed["time_zone"],
                units=typed["units"], clock_face=typed["clock_face"],
                oven_shelves=typed["oven_shelves"] or OVEN_SHELVES,
            )  # fmt: skip
        forget_start_word()
        return _signed_in(request, owner)
    context = {"form": form}
    status = 422 if form.is_bound else 200
    return render(request, "members/first_start.html", context, status=status)


def members(request: HttpRequest) -> HttpResponse:
    """Who cooks here, the open invitations, and the cook's own password."""
    return _members_page(request)


@require_POST
def make_invitation(request: HttpRequest) -> HttpResponse:
    """Invite somebody."""
    kitchen = owned_kitchen_of(request)
    form = RoleForm(request.POST)
    if not form.is_valid():
        return _members_page(request, form)
    role: str = form.cleaned_data["role"]
    return _said(request, lambda: invite(kitchen, role, cook_of(request)))


@require_POST
def take_invitation_back(request: HttpRequest, invitation_id: int) -> HttpResponse:
    """End an invitation."""
    invitations = owned_kitchen_of(request).invitations
    end_invitation(get_object_or_404(invitations, pk=invitation_id, used_by=None))
    return redirect("members")


@require_POST
def change_role(request: HttpRequest, member_id: int) -> HttpResponse:
    """Make somebody an owner or a cook."""
    member = get_object_or_404(owned_kitchen_of(request).memberships, pk=member_id)
    form = RoleForm(request.POST)
    if not form.is_valid():
        return _members_page(request)
    return _said(request, lambda: set_role(member, form.cleaned_data["role"]))


@require_POST
def remove(request: HttpRequest, member_id: int) -> HttpResponse:
    """Remove somebody, who is locked out at once; or leave."""
    mine = membership_of(request)
    kitchen = mine.kitchen if mine.pk == member_id else owned_kitchen_of(request)
    member = get_object_or_404(kitchen.memberships, pk=member_id)
    return _said(request, lambda: remove_member(member))


@never_cache
@login_not_required
def come_in(request: HttpRequest, token: str) -> HttpResponse:
    """Take up an invitation: as whoever is signed in, or as somebody new."""
    invitation = invitation_of(token)
    if invitation is None:
        return render(request, "members/over.html", {"words": OVER}, status=404)
    if request.user.is_authenticated:
        return _come_in_as_oneself(request, invitation)
    form = NewCookForm(request.POST or None)
    if request.method == "POST" and form.is_valid():
        typed = form.cleaned_data
        try:
            cook = join_as_new(invitation, typed["username"], typed["password1"])
        except Refused as refused:
            form.add_error(None, str(refused))
        else:
            return _signed_in(request, cook)
    context = {"form": form, "invitation": invitation, "here": request.path}
    status = 422 if form.is_bound else 200
    return render(request, "members/come_in.html", context, status=status)


@require_POST
def cook_at(request: HttpRequest, kitchen_id: int) -> HttpResponse:
    """Cook in another of one's kitchens."""
    member = get_object_or_404(Membership, cook=cook_of(request), kitchen=kitchen_id)
    choose_kitchen(request, member.kitchen)
    return redirect("today")


@require_POST
def leave_everywhere(request: HttpRequest) -> HttpResponseRedirect:
    """Sign out in every browser."""
    sign_out_everywhere(cook_of(request))
    logout(request)
    return redirect("sign-in")


def _come_in_as_oneself(request: HttpRequest, invitation: Invitation) -> HttpResponse:
    if request.method == "POST":
        try:
            join(invitation, cook_of(request))
        except Refused as refused:
            messages.error(request, str(refused))
        else:
            choose_kitchen(request, invitation.kitchen)
        return redirect("today")
    return render(request, "members/come_in.html", {"invitation": invitation})


def _signed_in(request: HttpRequest, cook: Cook) -> HttpResponse:
    login(request, cook, backend=BACKEND)
    response = redirect("today")
    know_browser(request, response, cook.username)
    return response


def _said(request: HttpRequest, deed: Callable[[], object]) -> HttpResponse:
    """Do it; what is refused is said."""
    try:
        deed()
    except Refused as refused:
        messages.error(request, str(refused))
    return redirect("members")


def _members_page(request: HttpRequest, form: RoleForm | None = None) -> HttpResponse:
    mine, kitchen = membership_of(request), kitchen_of(request)
    is_owner = mine.role == Membership.Role.OWNER
    links = open_links(kitchen) if is_owner else []
    everybody = list(kitchen.memberships.select_related("cook").order_by("pk"))
    context = {
        "mine": mine,
        "is_owner": is_owner,
        "members": everybody,
        "has_one_owner": [each.role for each in everybody].count(Membership.Role.OWNER) == 1,
        "links": [
            (each, request.build_absolute_uri(reverse("come-in", args=[token])))
            for each, token in links
        ],
        "role_form": form or RoleForm(),
        "others": Membership.objects.filter(cook=mine.cook).exclude(pk=mine.pk)
        .select_related("kitchen").order_by("pk"),
    }  # fmt: skip
    return render(request, "members/members.html", context, status=422 if form else 200)
