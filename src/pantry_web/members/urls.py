"""Addresses of those who come in."""

from django.contrib.auth.views import LogoutView
from django.urls import path

from pantry_web.members import views
from pantry_web.members.forgotten import NewPassword

urlpatterns = [
    path("sign-in/", views.SignIn.as_view(), name="sign-in"),
    path("sign-out/", LogoutView.as_view(), name="sign-out"),
    path("sign-out/everywhere/", views.leave_everywhere, name="sign-out-everywhere"),
    path("start/", views.first_start, name="first-start"),
    path("password/", views.ChangePassword.as_view(), name="password"),
    path("password/<uidb64>/<token>/", NewPassword.as_view(), name="new-password"),
    path("join/<str:token>/", views.come_in, name="come-in"),
    path("members/", views.members, name="members"),
    path("members/invite/", views.make_invitation, name="invite"),
    path(
        "members/invite/<int:invitation_id>/end/", views.take_invitation_back, name="end-invitation"
    ),
    path("members/<int:member_id>/role/", views.change_role, name="change-role"),
    path("members/<int:member_id>/remove/", views.remove, name="remove-member"),
    path("members/at/<int:kitchen_id>/", views.cook_at, name="cook-at"),
]
