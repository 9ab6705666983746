<nav>
  <a href="/timetable">Timetable</a> <a href="/booking">Booking</a> <a href="/crew">Crew</a>
</nav>
