import React, { useLayoutEffect, useRef, useState } from "react"

export default function Tabbed({ onGone }) {
	const [on, setOn] = useState(true)
	const latestOnGone = useRef(onGone)
	latestOnGone.current = onGone
	const latestOn = useRef(on)
	latestOn.current = on

	useLayoutEffect(() => {
		const id = setInterval(() => flip(), 100)
		return () => {
			clearInterval(id)
			latestOnGone.current(`a
	b`)
		}
	}, [])

	function flip() {
		setOn(!latestOn.current)
	}

	return (
		<b>
			{on ? "on" : "off"}
		</b>
	)
}
