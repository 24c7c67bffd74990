"""Whether the program is well, for whoever watches over it."""

from django.contrib.auth.decorators import login_not_required
from django.db import DatabaseError, connection
from django.http import HttpRequest, JsonResponse
from django.views.decorators.cache import never_cache


@never_cache
@login_not_required
def health(request: HttpRequest) -> JsonResponse:
    """Whether pages and database answer; nothing of any kitchen is told."""
    try:
        with connection.cursor() as cursor:
            cursor.execute("SELECT 1 FROM kitchens_kitchen LIMIT 1")
    except DatabaseError:
        return JsonResponse({"status": "the database does not answer"}, status=503)
    return JsonResponse({"status": "well"})
