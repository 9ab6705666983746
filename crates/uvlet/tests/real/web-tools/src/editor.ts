import { EditorView, basicSetup } from 'codemirror'
import { javascript } from '@codemirror/lang-javascript'
export const open = (parent: HTMLElement) => new EditorView({ doc: 'let a = 1', extensions: [basicSetup, javascript()], parent })
