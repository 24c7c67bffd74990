"""Answers of the core, kept under the digest of what was asked and of the rules."""

from django.db import models


class DishAnswer(models.Model):
    """What a `dish` document came to; it can be worked out again at any time."""

    digest = models.CharField(max_length=64, primary_key=True)
    answer = models.TextField()
    kept_on = models.DateField(auto_now_add=True)

    class Meta:
        indexes = [models.Index(fields=["kept_on"])]

    def __str__(self) -> str:
        return self.digest[:12]
