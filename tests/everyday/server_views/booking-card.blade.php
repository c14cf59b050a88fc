@props(['booking', 'open' => true])

<article class="card">
    <h2>{{ $booking['code'] }}</h2>
    <x-cargo-badge :cargo="$booking['cargo']" :tonnes="$booking['tonnes']" class="right" />
    @if ($open)
        <x-notice type="info" title="Boarding">
            <p>Gate {{ $booking['gate'] }}</p>
        </x-notice>
    @endif
</article>
