// rows adds an empty row to a list that is changed in rows.
export default () => ({
  add() {
    const last = [...this.$root.querySelectorAll("[data-row]")].at(-1);
    const row = last.cloneNode(true);
    for (const field of row.querySelectorAll("input")) field.value = "";
    last.after(row);
    row.querySelector("input").focus();
  },
});
