"""bin/device."""

import sys

from pantry_devices.play import main

sys.exit(main())
