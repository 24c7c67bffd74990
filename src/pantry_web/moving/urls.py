"""Addresses of a kitchen as a file."""

from django.urls import path

from pantry_web.moving import views

urlpatterns = [
    path("house/kitchen.json", views.take_out, name="take-out-kitchen"),
    path("house/in/", views.bring_in, name="bring-in-kitchen"),
]
