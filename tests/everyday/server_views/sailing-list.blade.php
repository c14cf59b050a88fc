@props(['heading' => 'Sailings', 'sailings' => []])

<section class="sailings">
    <h2>{{ $heading }} <small>({{ count($sailings) }})</small></h2>
    <ol>
        @forelse ($sailings as $sailing)
            <li @class(['sailing', 'late' => $sailing['late'] > 0, 'first' => $loop->first])>
                <span class="number">{{ $loop->iteration }}.</span>
                <strong>{{ $sailing['from'] }} – {{ $sailing['to'] }}</strong>
                @if ($sailing['late'] > 0)
                    <em>{{ $sailing['late'] }} min late</em>
                @elseif ($sailing['departed'])
                    <em>departed</em>
                @else
                    <em>on time</em>
                @endif
                @unless ($loop->last)
                    <hr>
                @endunless
            </li>
        @empty
            <li class="none">No sailings today</li>
        @endforelse
    </ol>
</section>
