<?php

// A stand-in for the library of stateful views, over the engine: state between requests, actions, computed values.

namespace Livewire {
    abstract class Component
    {
        public function __get(string $name)
        {
            $method = method_exists($this, $name) ? new \ReflectionMethod($this, $name) : null;
            if ($method && $method->getAttributes(Attributes\Computed::class)) {
                return $this->$name();
            }
            throw new \ErrorException("Undefined property: $name");
        }

        /** The public members by name. */
        final public function __state(): array
        {
            $found = [];
            foreach ((new \ReflectionClass($this))->getProperties(\ReflectionProperty::IS_PUBLIC) as $one) {
                $found[$one->getName()] = $one->isInitialized($this) ? $one->getValue($this) : null;
            }
            return $found;
        }

        /** Take values for public members; others are no members. */
        final public function __take(array $values, ?string $attribute = null): void
        {
            foreach ($values as $name => $value) {
                if (!property_exists($this, $name)) {
                    continue;
                }
                $one = new \ReflectionProperty($this, $name);
                if ($one->isPublic() && ($attribute === null || $one->getAttributes($attribute))) {
                    $this->$name = $value;
                }
            }
        }

        /** Do what a page asks for: set a member, or call an action. */
        final public function __act(array $asked): void
        {
            if (isset($asked['set'])) {
                if (!array_key_exists($asked['set'], $this->__state())) {
                    throw new \ErrorException("Unable to set component data: {$asked['set']}");
                }
                $this->{$asked['set']} = $asked['value'];
                return;
            }
            $name = $asked['call'];
            $given = $asked['given'] ?? [];
            if ($name === '$toggle') {
                $this->{$given[0]} = !$this->{$given[0]};
            } elseif ($name === '$set') {
                $this->__act(['set' => $given[0], 'value' => $given[1]]);
            } elseif (!method_exists($this, $name) || method_exists(self::class, $name)
                || !(new \ReflectionMethod($this, $name))->isPublic() || in_array($name, ['mount', 'render'], true)) {
                throw new \ErrorException("Unable to call component method: $name");
            } else {
                $this->$name(...$given);
            }
        }
    }
}

namespace Livewire\Attributes {
    #[\Attribute]
    final class Computed
    {
    }

    #[\Attribute]
    final class Reactive
    {
    }

    #[\Attribute]
    final class Lazy
    {
    }
}

namespace {
    /** Data that are asked for and have not come yet. */
    final class Awaited extends Exception
    {
    }

    /** Answers of a page's trial in the place of data: {address: {"fail", "status", "text"}}. */
    function answers(array $replies): object
    {
        if (!class_exists('Answers', false)) {
            eval('final class Answers implements App\DataSource {
                public function __construct(private array $replies) {}
                public function get(string $url): mixed {
                    $reply = $this->replies[$url] ?? throw new Awaited($url);
                    $data = json_decode($reply["text"], true);
                    $failed = $reply["fail"] || $reply["status"] < 200 || $reply["status"] > 299;
                    if ($failed || json_last_error() !== JSON_ERROR_NONE) {
                        throw new App\DataSourceError($url);
                    }
                    return $data;
                }
            }');
        }
        return new Answers($replies);
    }

    /** The answer of a trial to a query: one of the class, by the address that it stands for. */
    function queried(string $pattern, array $given): array
    {
        foreach ($given as $name => $value) {
            $pattern = str_replace('{' . $name . '}', (string) $value, $pattern);
        }
        $reply = $GLOBALS['replies'][$pattern] ?? null;
        if ($reply === null) {
            // The class may catch whatever is thrown.
            $GLOBALS['wanted'] = $pattern;
            throw new Awaited($pattern);
        }
        $data = json_decode($reply['text'], true);
        if ($reply['fail'] || $reply['status'] < 200 || $reply['status'] > 299 || !is_array($data)) {
            throw new RuntimeException("no data for $pattern");
        }
        return $data;
    }

    /** A class whose queries are answered by the trial. */
    function answered(string $class): string
    {
        $methods = '';
        foreach ((new ReflectionClass($class))->getMethods(ReflectionMethod::IS_PROTECTED) as $one) {
            if (!preg_match('/The data that `([^`\']+)` answers with/', (string) $one->getDocComment(), $found)) {
                continue;
            }
            $names = array_map(fn ($each) => "{$each->getType()} \${$each->getName()}", $one->getParameters());
            $given = array_map(fn ($each) => "'{$each->getName()}' => \${$each->getName()}", $one->getParameters());
            $methods .= "protected function {$one->getName()}(" . implode(', ', $names) . '): array '
                . "{ return \\queried('{$found[1]}', [" . implode(', ', $given) . ']); } ';
        }
        if ($methods === '') {
            return $class;
        }
        eval("class Answered extends \\$class { $methods }");
        return 'Answered';
    }

    /** Run the preparation of a component, with the data that it asks for. */
    function prepared(object $component, array $replies): void
    {
        if (!method_exists($component, 'mount')) {
            return;
        }
        $given = [];
        foreach ((new ReflectionMethod($component, 'mount'))->getParameters() as $one) {
            $given[] = (string) $one->getType() === 'App\DataSource' ? answers($replies) : null;
        }
        $component->mount(...$given);
    }

    /** One request of a page: {"class", "inputs", "state", "changed", "acts", "replies"} → {"html", "state"}. One of
        a page whose data have not come → {"html", "wants"}. */
    function requested(array $asked, TextEngine $engine): array
    {
        $GLOBALS['replies'] = $asked['replies'] ?? [];
        $class = answered($asked['class']);
        $component = new $class();
        if ($asked['state'] === null) {
            $component->__take($asked['inputs']);
            try {
                prepared($component, $asked['replies']);
            } catch (Awaited $wanted) {
                $GLOBALS['wanted'] = $wanted->getMessage();
            }
            if (isset($GLOBALS['wanted'])) {
                $engine->component = new stdClass();
                $given = array_merge($asked['inputs'], $asked['changed'] ?? []);
                $html = $component->placeholder($given)->render();
                return ['html' => $html, 'state' => null, 'wants' => $GLOBALS['wanted']];
            }
            $component->__take($asked['changed'] ?? [], Livewire\Attributes\Reactive::class);
        } else {
            $component->__take($asked['state']);
            // An input that is given no more has its first value again.
            $given = $asked['changed'] ?? [];
            foreach ($asked['without'] ?? [] as $name) {
                if (property_exists($component, $name)) {
                    $given[$name] = (new ReflectionProperty($component, $name))->getDefaultValue();
                }
            }
            $component->__take($given, Livewire\Attributes\Reactive::class);
        }
        foreach ($asked['acts'] as $act) {
            $component->__act($act);
        }
        $engine->component = $component;
        $html = $component->render()->with($component->__state())->render();
        // As they travel to the page and back.
        return ['html' => $html, 'state' => $component->__state()];
    }
}
