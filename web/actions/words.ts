export const timeOf = (at: number): string => new Date(at).toLocaleTimeString('en-GB')
export const dayAndTime = (at: number): string =>
  new Date(at).toLocaleString('en-GB', {
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit'
  })
