"""Addresses of weigh-up."""

from django.urls import path

from pantry_web.weighup import views

urlpatterns = [
    path("feasts/<int:feast_id>/dish/", views.new_dish, name="new-dish"),
    path("feasts/<int:feast_id>/answer/", views.answer, name="answer"),
    path("dishes/<int:dish_id>/weigh-up/", views.weigh_up, name="weigh-up"),
]
