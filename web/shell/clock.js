// clock writes seconds as minutes to go, as the server does.
const two = (n) => String(n).padStart(2, "0");
export function clock(seconds) {
  const s = Math.abs(seconds);
  if (s >= 86400) return `${Math.floor(s / 86400)} d ${Math.floor((s % 86400) / 3600)} h`;
  if (s >= 3600) return `${Math.floor(s / 3600)}:${two(Math.floor((s % 3600) / 60))}:${two(s % 60)}`;
  return `${Math.floor(s / 60)}′${two(s % 60)}″`;
}

// toGo is the same for a moment of the plan: "38′", "4′30″", "+2′30″".
export function toGo(from) {
  const s = Math.abs(from);
  return `${from > 0 ? "+" : ""}${Math.floor(s / 60)}′${s % 60 ? `${two(s % 60)}″` : ""}`;
}

// hour is a moment on the clock of the ground.
export const hour = (unix, zone) => new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit", timeZone: zone }).format(unix * 1000);
