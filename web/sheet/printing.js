// printing opens the browser's print dialog.
export default () => ({
  print() {
    window.print();
  },
});
