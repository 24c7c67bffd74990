"""The web application: pages, forms and what is kept; all reckoning is the core's."""
