/**
 * What is asked for where words are missing, shown pale in their place. While they are typed the element holds a line
 * break of the text editor's, and the prompt takes no room beside the caret.
 */
export const PROMPT_CSS = `
[data-prompt]:empty::before,[data-prompt]:has(>p:only-child:empty)::before,[data-prompt]:has(>br:only-child)::before,[data-prompt]:has(>p:only-child>br:only-child)::before{content:attr(data-prompt);opacity:.6}
[data-prompt]:has(>p:only-child:empty)::before{display:block}
[data-prompt]:has(>br:only-child)::before,[data-prompt]:has(>p:only-child>br:only-child)::before{display:block;height:0;white-space:nowrap}
[data-prompt] li:only-child:empty::before{content:"First point";opacity:.6}
`
