<table {{ $attributes->class(['fares', 'compact' => $compact]) }}>
    <caption>{{ $caption }}</caption>
    <thead>
        <tr>
            <th>Ticket</th>
            <th>Fare</th>
        </tr>
    </thead>
    <tbody>
        @foreach ($fares as $fare)
            <tr>
                <td>{{ $fare['name'] }}</td>
                <td>{{ number_format($fare['price'], 2) }}</td>
            </tr>
        @endforeach
    </tbody>
    @if ($hasFares())
        <tfoot>
            <tr>
                <td>Cheapest</td>
                <td>{{ $cheapest() }}</td>
            </tr>
        </tfoot>
    @endif
</table>
