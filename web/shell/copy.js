// copy puts the share link on the clipboard and says so.
export default () => ({
  done: false,
  async copy() {
    const field = this.$refs.link;
    field.select();
    try {
      await navigator.clipboard.writeText(field.value);
    } catch {
      document.execCommand("copy");
    }
    this.done = true;
  },
});
