import { ask } from "../shell/ask.js";

// photo makes a picture small before it is sent: a phone's own is larger than a form may
// be, and nobody needs more than a phone shows.
const side = 900;

export default () => ({
  async send(event) {
    if (event.submitter?.name === "gone") return;
    event.preventDefault();
    const field = this.$root.querySelector("[type=file]");
    const file = field.files[0];
    if (!file) return;
    const form = new FormData();
    try {
      const image = await createImageBitmap(file);
      const shrink = Math.min(1, side / Math.max(image.width, image.height));
      const canvas = document.createElement("canvas");
      canvas.width = Math.round(image.width * shrink);
      canvas.height = Math.round(image.height * shrink);
      canvas.getContext("2d").drawImage(image, 0, 0, canvas.width, canvas.height);
      form.append("picture", await new Promise((done) => canvas.toBlob(done, "image/jpeg", 0.85)), "picture.jpg");
    } catch {
      form.append("picture", file); // the server says what is wrong with it
    }
    const answer = await ask(this.$root.action, "picture", { method: "POST", body: form });
    if (answer) location.assign(answer.url);
  },
});
