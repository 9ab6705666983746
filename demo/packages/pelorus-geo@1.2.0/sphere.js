const R = 6371008.8;
const rad = (degrees) => (degrees * Math.PI) / 180;
const deg = (radians) => (radians * 180) / Math.PI;
/** Great-circle distance in metres (haversine). */
export function distance([lon1, lat1], [lon2, lat2]) {
  const dLat = rad(lat2 - lat1);
  const dLon = rad(lon2 - lon1);
  const h = Math.sin(dLat / 2) ** 2 + Math.cos(rad(lat1)) * Math.cos(rad(lat2)) * Math.sin(dLon / 2) ** 2;
  return 2 * R * Math.asin(Math.min(1, Math.sqrt(h)));
}
export function bearing([lon1, lat1], [lon2, lat2]) {
  const y = Math.sin(rad(lon2 - lon1)) * Math.cos(rad(lat2));
  const x = Math.cos(rad(lat1)) * Math.sin(rad(lat2))
    - Math.sin(rad(lat1)) * Math.cos(rad(lat2)) * Math.cos(rad(lon2 - lon1));
  return (deg(Math.atan2(y, x)) + 360) % 360;
}
export function destination([lon, lat], metres, course) {
  const d = metres / R;
  const lat2 = Math.asin(Math.sin(rad(lat)) * Math.cos(d) + Math.cos(rad(lat)) * Math.sin(d) * Math.cos(rad(course)));
  const lon2 = rad(lon) + Math.atan2(
    Math.sin(rad(course)) * Math.sin(d) * Math.cos(rad(lat)),
    Math.cos(d) - Math.sin(rad(lat)) * Math.sin(lat2),
  );
  return [((deg(lon2) + 540) % 360) - 180, deg(lat2)];
}
