import _ from 'lodash'
import moment from 'moment'
import axios from 'axios'
import Handlebars from 'handlebars'
import $ from 'jquery'
import { z } from 'zod'
import { produce } from 'immer'
import { v4 } from 'uuid'
import { marked } from 'marked'
import DOMPurify from 'dompurify'
import Fuse from 'fuse.js'
import Mousetrap from 'mousetrap'
import Big from 'big.js'
import { fromEvent, debounceTime, map } from 'rxjs'
import { DateTime } from 'luxon'
import Papa from 'papaparse'
import { rows } from './rows'

const list = z.array(z.object({ name: z.string(), price: z.number() })).parse(rows)
const sorted = produce(_.sortBy(list, 'price'), (draft) => { draft.push({ name: v4(), price: 1 }) })
const fuse = new Fuse(sorted, { keys: ['name'] })
const page = Handlebars.compile('<h1>{{title}}</h1><p>{{when}}</p>')
$(() => {
  $('body').append(page({ title: 'Tools', when: moment(0).utc().format('LL') + DateTime.fromMillis(0).toISODate() }))
  $('body').append(DOMPurify.sanitize(marked.parse('**total** ' + new Big(1.1).plus(2)) as string))
  const input = $('<input>').appendTo('body')
  fromEvent(input[0], 'input').pipe(debounceTime(100), map(() => String(input.val()))).subscribe((term) => $('p').text(fuse.search(term).length))
  $('<button>Chart</button>').appendTo('body').on('click', async () => (await import('./chart')).draw(sorted.map((row) => row.price)))
  $('<button>Upload</button>').appendTo('body').on('click', () => axios.post('/rows', Papa.unparse(sorted)).catch(() => 0))
  $('<button>Editor</button>').appendTo('body').on('click', async () => (await import('./editor')).open(document.body))
})
Mousetrap.bind('?', () => alert('help'))
