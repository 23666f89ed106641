# frozen_string_literal: true

module Mordant
  module Steps
    # One operation of a recipe with its parameter values. Immutable.
    class Step
      class << self
        attr_reader :id, :label

        def named(id, label)
          @id, @label = id.to_s.freeze, label.freeze
        end

        # @param name [Symbol, nil] :log, :linear or :display; without one, what was declared
        def domain(name = nil)
          name ? @domain = name : @domain
        end

        def parameter(name, **declaration)
          parameters[name] = Parameter.new(name, **declaration)
          define_method(name) { @values.fetch(name) }
        end

        # A parameter that is one of some texts; see TextParameter.
        def text(name, **declaration)
          parameters[name] = TextParameter.new(name, **declaration)
          define_method(name) { @values.fetch(name) }
        end

        # A parameter that is a curve; see PointsParameter.
        def points(name, **declaration)
          parameters[name] = PointsParameter.new(name, **declaration)
          define_method(name) { @values.fetch(name) }
        end

        # @return [Hash{Symbol => Parameter, TextParameter, PointsParameter}]
        def parameters = (@parameters ||= {})

        # Says that a step depends on where a pixel is, or on others: it then has
        # process(space) instead of operations(space), see Grade::Stage.
        def not_pointwise = @not_pointwise = true

        def pointwise? = !@not_pointwise

        # Handles of hand-made controls; see Balance.
        def handles(list = nil)
          list ? @handles = list.freeze : (@handles || [].freeze)
        end

        # Parts of the picture the step treats by themselves, to be shown one at a time; a step
        # that names some has region_weights(name, planes, space).
        #
        # @return [Array<Symbol>]
        def regions(list = nil)
          list ? @regions = list.freeze : (@regions || [].freeze)
        end

        def neutral = new({})

        # @return [Hash] what an interface needs to know
        def to_h
          of = ->(kind) { parameters.values.grep(kind).map(&:to_h) }
          {id:, label:, domain: domain.to_s, pointwise: pointwise?, parameters: of[Parameter], texts: of[TextParameter],
           curves: of[PointsParameter], handles:, regions:}
        end
      end

      # @param values [Hash{String, Symbol => Object}] those left out are neutral
      # @param path [String] where they stand, for errors
      # @raise [ParameterError]
      def initialize(values, path: "parameters")
        given = values.transform_keys(&:to_sym)
        unknown = given.keys - self.class.parameters.keys
        unless unknown.empty?
          raise ParameterError.new(path:, expected: "parameters of #{self.class.id} " \
            "(#{self.class.parameters.keys.join(", ")})", found: unknown.first.to_s)
        end
        @values = self.class.parameters.to_h do |name, parameter|
          [name, given.key?(name) ? parameter.check(given[name], "#{path}.#{name}") : parameter.neutral_value]
        end.freeze
        agree(path)
      end

      # @return [Hash{Symbol => Float, Array<Float>, String}]
      attr_reader :values

      # Refuses values that are each in range but do not go together.
      #
      # @raise [ParameterError]
      def agree(_path) = nil

      def pointwise? = self.class.pointwise?

      # @return [Array] what files it reads, and when they were last changed
      def stamps = []

      def neutral? = @values.all? { |name, value| value == self.class.parameters[name].neutral_value }

      # @param space [Colour::WorkingSpace]
      # @return [Array] Pointwise operations in the declared domain; none when neutral
      def operations(space) = raise(NotImplementedError, "#{self.class} has no operations")

      # What the step makes of grey along the tone axis, for steps that have such
      # a curve.
      #
      # @param count [Integer]
      # @return [Array<Float>, nil] tone out for equal distances of tone in, 0.0..1.0
      def tone_samples(_space, count:) = nil

      # What the curves of PointsParameters are, for an interface to draw.
      #
      # @param count [Integer]
      # @return [Hash{Symbol => Array<Float>}] values at equal distances of place, 0..1,
      #   of those that have points
      def shapes(count:)
        place = Numo::DFloat.new(count).seq / (count - 1)
        self.class.parameters.values.grep(PointsParameter).filter_map do |parameter|
          points = @values.fetch(parameter.name)
          [parameter.name, parameter.spline(points).call(place).to_a] unless points.empty?
        end.to_h
      end

      # @param rgb [Numo::SFloat] [3, n] in the step's domain; never written to
      # @return [Numo::SFloat] [3, n], a new array
      # @raise [ShapeError] unless rgb is an SFloat of shape [3, n]
      def apply(rgb, space: Colour::WorkingSpace.default)
        Pointwise::Chain.new(operations(space)).call(rgb)
      end
    end
  end
end
