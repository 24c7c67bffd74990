"""What was pressed, so that the same press is known again."""

from django.db import models


class Press(models.Model):
    """A form that was sent and done, and how it was answered; None while that is not known.

    `digest` is of who sent what to where, its key among it: the same key with other words is
    another press, so that nothing typed is ever taken for something else.
    """

    digest = models.CharField(max_length=64, primary_key=True)
    at = models.DateTimeField(auto_now_add=True, db_index=True)
    location = models.TextField(null=True)
    told = models.JSONField(default=list)

    def __str__(self) -> str:
        return f"{self.digest[:8]} {self.at:%Y-%m-%d %H:%M}"
