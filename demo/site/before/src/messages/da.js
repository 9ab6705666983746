export const da = {
  "nav.timetable": "Sejlplan", "nav.booking": "Bestilling", "nav.crew": "Besætning",
  "departures.title": "Afgange fra {port}", "departures.none": "Ingen flere afgange i dag",
  "departures.count": "{count, plural, one {# afgang} other {# afgange}}",
  "departures.delayed": "Forsinket {minutes} minutter", "departures.cancelled": "Aflyst: {reason}",
  "tide.title": "Tidevand ved {port}", "tide.next": "Næste højvande {time}, {height} m",
  "booking.title": "Bestil en overfart", "booking.step": "Trin {at} af {of}", "booking.total": "I alt {price}",
  "booking.refund": "Refusion", "booking.done": "Bestilt. Din reference er {reference}.",
  "crew.title": "Ugens vagter", "form.submit": "Fortsæt", "form.required": "Udfyld venligst feltet",
  "form.email": "Det er ikke en e-mailadresse", "form.phone": "Angiv nummeret med landekode",
  "error.offline": "Du er offline. Vi prøver igen.",
};
