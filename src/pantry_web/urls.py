"""All addresses."""

from django.urls import include, path

urlpatterns = [
    path("", include("pantry_web.running.urls")),
    path("", include("pantry_web.members.urls")),
    path("", include("pantry_web.kitchens.urls")),
    path("", include("pantry_web.moving.urls")),
    path("", include("pantry_web.pantry.urls")),
    path("", include("pantry_web.today.urls")),
    path("", include("pantry_web.feasts.urls")),
    path("", include("pantry_web.steps.urls")),
    path("", include("pantry_web.weighup.urls")),
    path("", include("pantry_web.recipes.urls")),
    path("", include("pantry_web.shopping.urls")),
    path("", include("pantry_web.passage.urls")),
    path("", include("pantry_web.handbook.urls")),
    path("", include("pantry_web.ledger.urls")),
    path("", include("pantry_web.devices.urls")),
    path("", include("pantry_web.feeds.urls")),
    path("", include("pantry_web.fireday.urls")),
]
