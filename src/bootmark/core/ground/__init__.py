"""Where things lie: outlines in degrees, and the farm's plan in metres about its fixed origin."""
