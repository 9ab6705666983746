import L from 'leaflet'
import 'leaflet/dist/leaflet.css'
import { evaluate } from 'mathjs'
import { Scene, PerspectiveCamera, BoxGeometry, Mesh, MeshBasicMaterial } from 'three'
import { rows } from './rows'

const place = document.body.appendChild(document.createElement('div'))
place.style.height = '300px'
L.map(place).setView([evaluate('50 + 1'), -30], 4)
const scene = new Scene()
scene.add(new Mesh(new BoxGeometry(), new MeshBasicMaterial()))
new PerspectiveCamera().lookAt(scene.position)
document.title = rows.length + ' rows'
