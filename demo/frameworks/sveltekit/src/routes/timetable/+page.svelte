<script>
  import "../../site/timetable/main.js";
</script>

<svelte:head><title>Kelpwick Ferries: timetable</title></svelte:head>
