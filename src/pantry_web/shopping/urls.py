"""Addresses of the shopping list."""

from django.urls import path

from pantry_web.shopping import views

urlpatterns = [
    path("shopping/", views.shopping, name="shopping"),
    path("shopping/<slug:code>/tick/", views.tick, name="tick-bought"),
    path("shopping/<slug:code>/all/", views.tick_all, name="tick-trip"),
    path("shopping.txt", views.shopping_text, name="shopping-text"),
    path("shopping.csv", views.shopping_csv, name="shopping-csv"),
]
