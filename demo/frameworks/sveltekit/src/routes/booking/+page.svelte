<script>
  import "../../site/booking/main.js";
</script>

<svelte:head><title>Kelpwick Ferries: booking</title></svelte:head>
