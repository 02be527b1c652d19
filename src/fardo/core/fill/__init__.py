"""What fills the room that is left in a box: where, how deep, how much of what."""
