// picture saves the board's drawing as a PNG, twice as fine as a screen shows it.
export default () => ({
  async save() {
    const image = new Image();
    image.src = this.$root.dataset.src;
    await image.decode();
    const canvas = document.createElement("canvas");
    canvas.width = image.naturalWidth * 2;
    canvas.height = image.naturalHeight * 2;
    canvas.getContext("2d").drawImage(image, 0, 0, canvas.width, canvas.height);
    const file = await new Promise((done) => canvas.toBlob(done, "image/png"));
    const link = document.createElement("a");
    link.href = URL.createObjectURL(file);
    link.download = "run-in.png";
    link.click();
    setTimeout(() => URL.revokeObjectURL(link.href), 10000);
  },
});
