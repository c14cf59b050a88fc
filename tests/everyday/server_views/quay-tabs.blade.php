@props(['quays' => [], 'current' => 'north'])

<nav aria-label="Quays">
    <ul class="tabs">
        @foreach ($quays as $quay)
            <li>
                <a href="/quays/{{ $quay['id'] }}" class="tab {{ $quay['id'] === $current ? 'active' : '' }}"
                    @if ($quay['id'] === $current) aria-current="page" @endif
                >{{ strtoupper($quay['name']) }}</a>
                @if (!empty($quay['berths']))
                    <ul>
                        @foreach ($quay['berths'] as $berth)
                            <li>{{ $berth }}{{ $loop->last ? '' : ',' }}</li>
                        @endforeach
                    </ul>
                @endif
            </li>
        @endforeach
    </ul>
</nav>
