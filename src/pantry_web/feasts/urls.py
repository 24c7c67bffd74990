"""Addresses of feasts."""

from django.urls import path

from pantry_web.feasts import views

urlpatterns = [
    path("", views.feasts, name="feasts"),
    path("feasts/new/", views.new_feast, name="new-feast"),
    path("feasts/<int:feast_id>/", views.feast, name="feast"),
]
