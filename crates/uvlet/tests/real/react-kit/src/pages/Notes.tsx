import Markdown from 'react-markdown'
import { marked } from 'marked'
export default function Notes() {
  return <><Markdown># Notes</Markdown><div dangerouslySetInnerHTML={{ __html: marked.parse('*more*') as string }} /></>
}
