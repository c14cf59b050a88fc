import { computed, ref } from 'vue'

// Rows in the order of a column, which a click turns round.
export function useSorting(rows, first) {
  const column = ref(first)
  const descending = ref(false)

  const sorted = computed(() => {
    const list = [...(rows.value || [])]
    list.sort((a, b) => (a[column.value] > b[column.value] ? 1 : -1))
    return descending.value ? list.reverse() : list
  })

  function sortBy(name) {
    if (column.value === name) descending.value = !descending.value
    column.value = name
  }

  return { sorted, column, descending, sortBy }
}
