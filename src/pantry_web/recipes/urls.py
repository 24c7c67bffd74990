"""Addresses of the recipe check."""

from django.urls import path

from pantry_web.recipes import views

urlpatterns = [
    path("dishes/<int:dish_id>/recipe/", views.recipe_check, name="recipe-check"),
    path("dishes/<int:dish_id>/recipe/answer/", views.recipe_answer, name="recipe-answer"),
    path("dishes/<int:dish_id>/recipe/import/", views.recipe_import, name="recipe-import"),
    path("dishes/<int:dish_id>/recipe/change/", views.take_proposal, name="recipe-change"),
    path("dishes/<int:dish_id>/recipe/undo/", views.undo_proposal, name="recipe-undo"),
    path("dishes/<int:dish_id>/recipe/back/", views.as_written, name="recipe-back"),
]
