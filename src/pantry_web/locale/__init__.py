"""The languages of the pages beside English, each a folder that `bin/messages` makes."""
