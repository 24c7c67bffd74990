"""Addresses of the ledger."""

from django.urls import path

from pantry_web.feasts.access import leads_to
from pantry_web.ledger import tables, views

urlpatterns = [
    path("ledger/", views.ledger, name="ledger"),
    path("ledger/compare/", views.compare, name="compare"),
    path("ledger/ledger.csv", tables.dishes_csv, name="ledger-csv"),
    path("ledger/events.csv", tables.events_csv, name="events-csv"),
    path("ledger/ledger.json", tables.dishes_json, name="ledger-json"),
    path("dishes/<int:dish_id>/notes/", views.dish_page, name="ledger-dish"),
    path(
        "dishes/<int:dish_id>/ledger/",
        leads_to("ledger-dish"),
        name="old-ledger-dish",
    ),
    path("feasts/<int:feast_id>/afterwards/", views.afterwards, name="afterwards"),
    path("dishes/<int:dish_id>/notes/tell/", views.tell, name="tell-review"),
    path("dishes/<int:dish_id>/notes/skip/", views.skip, name="skip-review"),
    path("dishes/<int:dish_id>/notes/photos/", views.add_photo, name="add-photo"),
    path("ledger/photos/<int:photo_id>.jpg", views.photo, name="photo"),
    path("ledger/photos/<int:photo_id>/remove/", views.drop_photo, name="remove-photo"),
    path("feasts/<int:feast_id>/last-time/", views.last_time, name="last-time"),
    path("dishes/<int:dish_id>/last-time/<slug:code>/", views.take, name="take-proposal"),
    path("ledger/figures/<slug:figure>/<slug:deed>/", views.set_figure, name="set-figure"),
    path("ledger/left/<int:leftover_id>/<slug:fate>/", views.left_over, name="left-over"),
]
