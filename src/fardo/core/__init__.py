"""The rules of the job. Pure: no files, no clock, no web, no SQL, no global state."""
