// Before the first paint, so that the page never flashes in the other theme.
try {
  const theme = localStorage.getItem('fardo.theme');
  if (theme === 'light' || theme === 'dark') document.documentElement.dataset.theme = theme;
} catch {
  // No storage: the system's theme it is.
}
