"""Addresses of a kitchen as a file."""

from django.urls import path

from pantry_web.moving import views

urlpatterns = [
    path("house/files/", views.files, name="files"),
    path("house/kitchen.json", views.take_out, name="take-out-kitchen"),
    path("feasts/<int:feast_id>/rehearse/", views.rehearse, name="rehearse"),
    path("rehearsal/end/", views.end_rehearsal, name="end-rehearsal"),
    path("house/in/", views.bring_in, name="bring-in-kitchen"),
]
