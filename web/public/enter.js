// The way in from another device: a code from the address that was scanned, or the passphrase.
const form = document.querySelector('form');
const field = document.querySelector('#passphrase');
const says = document.querySelector('#says');

async function enter(body) {
  says.textContent = '';
  const answer = await fetch('/api/access/enter', {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(body),
  }).catch(() => null);
  if (answer?.ok) {
    location.replace('/');
    return;
  }
  const told = await answer?.json().catch(() => null);
  says.textContent = told?.detail ?? "The shop's server is not responding.";
}

form.addEventListener('submit', (event) => {
  event.preventDefault();
  enter({ passphrase: field.value }).catch(() => undefined);
});
const code = /^#code=([\w-]+)$/.exec(location.hash)?.[1];
if (code) {
  history.replaceState(null, '', '/enter');
  enter({ code }).catch(() => undefined);
}
