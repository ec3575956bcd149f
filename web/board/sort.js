// sort has the drills of a block put in order by hand: the one that was dragged, counted
// from 1, is moved by so many places.
export default () => ({
  ways: { forceFallback: true, fallbackTolerance: 3 }, // one hand for mouse and touch

  sorted(item, position) {
    const form = this.$root.querySelector("form[data-sorts]");
    const from = Number(item) - 1;
    if (from === position) return;
    form.querySelector("[name=item]").value = from;
    form.querySelector("[name=by]").value = position - from;
    form.requestSubmit();
  },
});
