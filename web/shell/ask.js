// ask sends what a page does in the background. Where no answer comes, or a refusal, the page says
// so until the next answer, whichever part of it asked: nothing fails without a sentence.
const within = 30000; // ms, after which nothing more is waited for

// say has the page say a sentence; "" ends it.
export function say(text) {
  const line = document.getElementById("no-answer");
  if (!line) return;
  line.querySelector("span").textContent = text;
  line.hidden = !text;
}

// unanswered has it say that what was done last may not be saved.
export const unanswered = () => say(document.getElementById("no-answer")?.dataset.told);

// ask gives the answer, or null where there is none to show. It is told which part of the page it
// is for; an answer without that part is another page, such as the one to sign in.
export async function ask(url, part, options = {}) {
  try {
    const answer = await fetch(url, { signal: AbortSignal.timeout?.(within), ...options, headers: { "X-Part": part, ...options.headers } });
    const text = await answer.text(); // the whole of it: an answer may break off
    const says = answer.headers.get("X-Says");
    if (!says && answer.status >= 500) throw new Error(answer.status);
    say(says ? text : "");
    return says ? null : { headers: answer.headers, redirected: answer.redirected, url: answer.url, text: () => text };
  } catch {
    unanswered();
    return null;
  }
}
