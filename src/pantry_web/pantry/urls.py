"""Addresses of the pantry."""

from django.urls import path

from pantry_web.pantry import views

urlpatterns = [
    path("pantry/", views.pantry, name="pantry"),
    path("pantry/tools/", views.tools, name="tools"),
    path("pantry/<slug:thing>/", views.add_thing, name="add-thing"),
    path("pantry/<slug:thing>/<int:thing_id>/", views.change_thing, name="change-thing"),
    path("pantry/<slug:thing>/<int:thing_id>/remove/", views.remove_thing, name="remove-thing"),
]
