# frozen_string_literal: true

require "digest"

module Mordant
  module Grade
    class Ladder
      # What a plan and what follows it make of the nodes of a lattice, as 16-bit codes between the lowest
      # and the highest value that comes out. Immutable.
      class Nodes
        KEPT = 48 # lattices of a fifth of a megabyte

        NOTHING = Struct.new(:chain).new(Pointwise::Chain.new([]))
        private_constant :NOTHING

        class << self
          # @param key [Array] for JSON, all that they depend on
          # @yieldreturn [Nodes]
          # @return [Nodes] with a digest; the latest are kept
          def kept(key)
            @kept ||= {}
            digest = Digest::SHA256.hexdigest(key.to_json)[0, 16]
            found = @kept.delete(digest) || yield.called(digest)
            @kept[digest] = found
            @kept.shift while @kept.size > KEPT
            found
          end

          # @param plan [Plan] that is pointwise
          # @param domain [Array<Array<Float>>]
          # @param onto [#chain, nil] a screen that follows it
          # @param through [#chain] what follows it where none does
          # @param held [Array<Float>] lowest and highest value that comes out then
          # @return [Nodes]
          def of(plan, domain, onto:, held:, through: NOTHING)
            samples = Bake.new(plan:, output: onto || through, size: NODES, domain:).samples
            onto ? new(samples, domain, codes: true) : new(samples.clip(*held), domain, codes: false)
          end
        end

        # @return [Array<Array<Float>>] lowest and highest red, green, blue that go in
        attr_reader :domain
        # @return [Array<Array<Float>>] and that come out: those that the codes stand between
        attr_reader :range
        # @return [String] 16-bit red, green, blue of NODES^3 nodes, red fastest
        attr_reader :words
        # @return [String] of all they depend on
        attr_reader :digest

        # @param samples [Numo::SFloat] [3, NODES^3]
        # @param domain [Array<Array<Float>>]
        # @param codes [Boolean] what comes out are codes of a screen
        def initialize(samples, domain, codes:)
          @domain = domain
          shares, @range = codes ? [samples, Lut::Lattice::WHOLE] : Ladder.shares(samples)
          @words = Media::Integers.interleave(Frame.new(shares, width: NODES**3, height: 1, encoding: "srgb"), 16).to_binary
        end

        def called(digest)
          @digest = digest
          freeze
        end
      end
    end
  end
end
