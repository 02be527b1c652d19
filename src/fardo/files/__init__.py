"""What is read and written: job, shop and tariff files, SVG, DXF, PDF, backups."""
