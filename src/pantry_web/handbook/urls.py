"""The addresses of the handbook."""

from django.urls import path

from pantry_web.handbook import views

urlpatterns = [
    path("handbook/", views.handbook, name="handbook"),
    path("handbook/trust/", views.trust, name="trust"),
]
