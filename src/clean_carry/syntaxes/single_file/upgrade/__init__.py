"""Files written for version 2 of the runtime, as version 3 takes them: before they are read."""
