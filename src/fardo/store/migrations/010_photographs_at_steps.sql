-- A photograph taken at a packing step, a file that is kept with the shop.
ALTER TABLE packing_tick ADD COLUMN photo TEXT NOT NULL DEFAULT '';
