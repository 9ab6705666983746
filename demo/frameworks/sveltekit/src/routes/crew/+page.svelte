<script>
  import "../../site/crew/main.js";
</script>

<svelte:head><title>Kelpwick Ferries: crew</title></svelte:head>
